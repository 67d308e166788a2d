CREATE TABLE `contact` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`from_node` text NOT NULL,
	`to_node` text NOT NULL,
	`is_both` integer NOT NULL,
	`is_planned` integer NOT NULL,
	`litres` real,
	`at_ms` integer NOT NULL,
	`until_ms` integer,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `contact_at` ON `contact` (`at_ms`);--> statement-breakpoint
CREATE INDEX `contact_from` ON `contact` (`from_node`,`at_ms`);--> statement-breakpoint
CREATE INDEX `contact_to` ON `contact` (`to_node`,`at_ms`);--> statement-breakpoint
CREATE INDEX `contact_command` ON `contact` (`command_key`);--> statement-breakpoint
CREATE TABLE `tool_bath` (
	`id` text PRIMARY KEY NOT NULL,
	`tool_set_id` text NOT NULL,
	`in_at_ms` integer NOT NULL,
	`out_at_ms` integer,
	`need_minutes` integer NOT NULL,
	`agent` text,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`tool_set_id`) REFERENCES `tool_set`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tool_bath_set` ON `tool_bath` (`tool_set_id`,`in_at_ms`);--> statement-breakpoint
CREATE TABLE `water_clear` (
	`id` text PRIMARY KEY NOT NULL,
	`node` text NOT NULL,
	`at_ms` integer NOT NULL,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `water_clear_node` ON `water_clear` (`node`,`at_ms`);