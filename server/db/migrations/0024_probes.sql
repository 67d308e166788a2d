CREATE TABLE `probe` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`tank_id` text NOT NULL,
	`measure` text NOT NULL,
	`every_min` integer NOT NULL,
	`fault` text NOT NULL,
	`added_at_ms` integer NOT NULL,
	`added_by_id` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`added_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `probe_sample` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`probe_id` text NOT NULL,
	`at_ms` integer NOT NULL,
	`value` real,
	FOREIGN KEY (`probe_id`) REFERENCES `probe`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `probe_sample_of` ON `probe_sample` (`probe_id`,`at_ms`);