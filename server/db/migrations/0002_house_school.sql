CREATE TABLE `house_school` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`hands_per_bag_min` real NOT NULL,
	`hands_per_lot_min` real NOT NULL,
	`steps` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `house_school_name_unique` ON `house_school` (`name`);