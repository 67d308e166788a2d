CREATE TABLE `__new_tank_override` (
	`id` text PRIMARY KEY NOT NULL,
	`line_id` text,
	`lot_id` text,
	`tank_id` text NOT NULL,
	`codes` text DEFAULT '[]' NOT NULL,
	`broken` text NOT NULL,
	`reason` text NOT NULL,
	`command_key` text,
	`is_rescue` integer DEFAULT 0 NOT NULL,
	`seen_by_id` text,
	`seen_at_ms` integer,
	`staff_id` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`line_id`) REFERENCES `line`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`seen_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_tank_override`("id", "line_id", "lot_id", "tank_id", "broken", "reason", "staff_id", "recorded_at_ms") SELECT o."id", o."line_id", line."lot_id", o."tank_id", o."broken", o."reason", o."staff_id", o."recorded_at_ms" FROM `tank_override` o JOIN `line` ON line."id" = o."line_id";--> statement-breakpoint
DROP TABLE `tank_override`;--> statement-breakpoint
ALTER TABLE `__new_tank_override` RENAME TO `tank_override`;--> statement-breakpoint
CREATE INDEX `tank_override_line` ON `tank_override` (`line_id`);--> statement-breakpoint
CREATE INDEX `tank_override_lot` ON `tank_override` (`lot_id`);--> statement-breakpoint
ALTER TABLE `lot` ADD `water` text;--> statement-breakpoint
ALTER TABLE `system` ADD `sharing` text;--> statement-breakpoint
UPDATE `system` SET `sharing` = 'one water' WHERE `sump_l` > 0;