CREATE TABLE `chore` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`rule` text NOT NULL,
	`start_on` text NOT NULL,
	`places` text NOT NULL,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE TABLE `chore_done` (
	`id` text PRIMARY KEY NOT NULL,
	`chore_id` text NOT NULL,
	`place_id` text NOT NULL,
	`place` text NOT NULL,
	`done_on` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`contact_id` text,
	`undone_at_ms` integer,
	`undone_by_id` text,
	FOREIGN KEY (`chore_id`) REFERENCES `chore`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `chore_done_at` ON `chore_done` (`chore_id`,`place_id`,`done_on`);--> statement-breakpoint
CREATE INDEX `chore_done_on` ON `chore_done` (`done_on`);--> statement-breakpoint
CREATE TABLE `supply_stock` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`item` text NOT NULL,
	`pieces` integer NOT NULL,
	`after` integer NOT NULL,
	`why` text NOT NULL,
	`done_id` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`done_id`) REFERENCES `chore_done`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `supply_stock_of` ON `supply_stock` (`item`,`seq`);--> statement-breakpoint
CREATE INDEX `supply_stock_done` ON `supply_stock` (`done_id`);