CREATE TABLE `feed` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`hour` integer NOT NULL,
	`minute` integer,
	`day_percent` integer NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `feed_name_unique` ON `feed` (`name`);--> statement-breakpoint
CREATE TABLE `feeding_order` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`lot_id` text,
	`tank_id` text,
	`food_id` text,
	`from_on` text NOT NULL,
	`until_on` text,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`at_ms` integer NOT NULL,
	`ended_at_ms` integer,
	`ended_by_id` text,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`food_id`) REFERENCES `food`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ended_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `feeding_order_open` ON `feeding_order` (`ended_at_ms`,`until_on`);--> statement-breakpoint
CREATE TABLE `food_stock` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`food_id` text NOT NULL,
	`pieces` integer NOT NULL,
	`after` integer NOT NULL,
	`why` text NOT NULL,
	`tick_id` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`food_id`) REFERENCES `food`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tick_id`) REFERENCES `kitchen_tick`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `food_stock_of` ON `food_stock` (`food_id`,`seq`);--> statement-breakpoint
CREATE INDEX `food_stock_at` ON `food_stock` (`at_ms`);--> statement-breakpoint
CREATE TABLE `given` (
	`id` text PRIMARY KEY NOT NULL,
	`tick_id` text NOT NULL,
	`tank_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`foods` text NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`tick_id`) REFERENCES `kitchen_tick`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `given_at` ON `given` (`at_ms`);--> statement-breakpoint
CREATE INDEX `given_of_tick` ON `given` (`tick_id`);--> statement-breakpoint
CREATE TABLE `kitchen_tick` (
	`id` text PRIMARY KEY NOT NULL,
	`feed_on` text NOT NULL,
	`feed_id` text NOT NULL,
	`step` text NOT NULL,
	`what` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`undone_at_ms` integer,
	`undone_by_id` text,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `kitchen_tick_of` ON `kitchen_tick` (`feed_on`,`feed_id`,`step`,`what`) WHERE "kitchen_tick"."undone_at_ms" IS NULL;--> statement-breakpoint
ALTER TABLE `food` ADD `piece_g` real;--> statement-breakpoint
ALTER TABLE `food` ADD `dry_percent` real;--> statement-breakpoint
ALTER TABLE `food` ADD `protein_percent` real;--> statement-breakpoint
ALTER TABLE `food` ADD `mouths` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `food` ADD `out_minutes` integer;--> statement-breakpoint
ALTER TABLE `system` ADD `filter` text;