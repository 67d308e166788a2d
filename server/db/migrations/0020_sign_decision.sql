CREATE TABLE `asked_chore` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`kind` text NOT NULL,
	`litres_each` real,
	`times` integer NOT NULL,
	`by_ms` integer NOT NULL,
	`asked_by_id` text NOT NULL,
	`command_key` text NOT NULL,
	`asked_at_ms` integer NOT NULL,
	`ended_as` text,
	`ended_by_id` text,
	`ended_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`asked_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ended_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `asked_chore_at` ON `asked_chore` (`asked_at_ms`);--> statement-breakpoint
CREATE TABLE `round_list` (
	`id` integer PRIMARY KEY NOT NULL,
	`changes` text NOT NULL,
	`version` integer NOT NULL,
	`changed_by_id` text NOT NULL,
	`changed_at_ms` integer NOT NULL,
	FOREIGN KEY (`changed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `sign_decision` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`lot_id` text,
	`sign` text NOT NULL,
	`decision` text NOT NULL,
	`severity` integer NOT NULL,
	`first_ms` integer NOT NULL,
	`last_ms` integer NOT NULL,
	`last_key` text NOT NULL,
	`until_ms` integer,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `sign_decision_tank` ON `sign_decision` (`tank_id`,`last_ms`);--> statement-breakpoint
CREATE INDEX `sign_decision_last` ON `sign_decision` (`last_key`);--> statement-breakpoint
CREATE INDEX `sign_decision_seen` ON `sign_decision` (`last_ms`);--> statement-breakpoint
CREATE TABLE `sign_reach` (
	`lot_id` text NOT NULL,
	`decision_id` text NOT NULL,
	PRIMARY KEY(`lot_id`, `decision_id`),
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`decision_id`) REFERENCES `sign_decision`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `round` ADD `parts` text;