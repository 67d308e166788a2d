CREATE TABLE `handover_read` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`until_ms` integer NOT NULL,
	`command_key` text NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `handover_read_of` ON `handover_read` (`staff_id`,`until_ms`);--> statement-breakpoint
CREATE TABLE `handover_word` (
	`id` text PRIMARY KEY NOT NULL,
	`words` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`at_ms` integer NOT NULL,
	`removed_by_id` text,
	`removed_at_ms` integer,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`removed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `handover_word_at` ON `handover_word` (`at_ms`);