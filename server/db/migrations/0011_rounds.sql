CREATE TABLE `round` (
	`id` text PRIMARY KEY NOT NULL,
	`on` text NOT NULL,
	`number` integer NOT NULL,
	`started_at_ms` integer NOT NULL,
	`started_by_id` text NOT NULL,
	`last_at_ms` integer NOT NULL,
	`last_by_id` text NOT NULL,
	`left_at_ms` integer,
	`left_by_id` text,
	`closed_at_ms` integer,
	`closed_by_id` text,
	FOREIGN KEY (`started_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`last_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`left_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`closed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `round_last` ON `round` (`last_at_ms`);--> statement-breakpoint
-- Rounds that were walked before they had a row of their own.
INSERT INTO `round` (`id`, `on`, `number`, `started_at_ms`, `started_by_id`, `last_at_ms`, `last_by_id`)
SELECT c.round_on || '-' || c.round_number, c.round_on, c.round_number, min(c.happened_at_ms),
  (SELECT f.staff_id FROM `check` f WHERE f.round_on = c.round_on AND f.round_number = c.round_number ORDER BY f.happened_at_ms LIMIT 1), max(c.happened_at_ms),
  (SELECT l.staff_id FROM `check` l WHERE l.round_on = c.round_on AND l.round_number = c.round_number ORDER BY l.happened_at_ms DESC LIMIT 1)
FROM `check` c GROUP BY c.round_on, c.round_number;
