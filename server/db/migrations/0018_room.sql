CREATE TABLE `lot_length` (
	`id` text PRIMARY KEY NOT NULL,
	`lot_id` text NOT NULL,
	`cm` real NOT NULL,
	`at_ms` integer NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `lot_length_lot` ON `lot_length` (`lot_id`,`at_ms`);--> statement-breakpoint
CREATE TABLE `plan` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`from_tank_id` text NOT NULL,
	`to_tank_id` text NOT NULL,
	`fish` text NOT NULL,
	`when` text NOT NULL,
	`takes` text NOT NULL,
	`until_on` text,
	`note` text,
	`ended_as` text,
	`ended_key` text,
	`ended_by_id` text,
	`ended_at_ms` integer,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`made_at_ms` integer NOT NULL,
	FOREIGN KEY (`from_tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`to_tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ended_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `plan_number_unique` ON `plan` (`number`);--> statement-breakpoint
CREATE INDEX `plan_ended` ON `plan` (`ended_at_ms`);--> statement-breakpoint
CREATE TABLE `rack` (
	`name` text PRIMARY KEY NOT NULL,
	`shelves` integer NOT NULL,
	`per_shelf` integer NOT NULL,
	`x` integer,
	`y` integer,
	`is_turned` integer DEFAULT 0 NOT NULL,
	`version` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sink` (
	`id` integer PRIMARY KEY NOT NULL,
	`x` integer NOT NULL,
	`y` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `tank_photo` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`width_px` integer NOT NULL,
	`height_px` integer NOT NULL,
	`staff_id` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`removed_by_id` text,
	`removed_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`removed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tank_photo_tank` ON `tank_photo` (`tank_id`,`happened_at_ms`);--> statement-breakpoint
CREATE TABLE `tank_pin` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`words` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`removed_by_id` text,
	`removed_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`removed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tank_pin_tank` ON `tank_pin` (`tank_id`);--> statement-breakpoint
CREATE TABLE `thing` (
	`key` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`have` integer NOT NULL,
	`counted_by_id` text NOT NULL,
	`counted_at_ms` integer NOT NULL,
	FOREIGN KEY (`counted_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `movement_happened` ON `movement` (`happened_at_ms`);