CREATE TABLE `found` (
	`movement_id` text PRIMARY KEY NOT NULL,
	`loss_id` text NOT NULL,
	`quantity` integer NOT NULL,
	FOREIGN KEY (`movement_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`loss_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `found_loss` ON `found` (`loss_id`);--> statement-breakpoint
CREATE TABLE `stocktake` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`begun_at_ms` integer NOT NULL,
	`begun_by_id` text NOT NULL,
	`booked_key` text,
	`booked_at_ms` integer,
	`booked_by_id` text,
	`booked_parts` text,
	`dropped_at_ms` integer,
	FOREIGN KEY (`begun_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`booked_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `stocktake_count` (
	`stocktake_id` text NOT NULL,
	`tank_id` text NOT NULL,
	`species_id` text NOT NULL,
	`strain` text NOT NULL,
	`counted` integer NOT NULL,
	PRIMARY KEY(`stocktake_id`, `tank_id`, `species_id`, `strain`),
	FOREIGN KEY (`stocktake_id`) REFERENCES `stocktake`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`species_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `stocktake_tank` (
	`stocktake_id` text NOT NULL,
	`tank_id` text NOT NULL,
	`source` text,
	`counted_at_ms` integer NOT NULL,
	`counted_by_id` text NOT NULL,
	PRIMARY KEY(`stocktake_id`, `tank_id`),
	FOREIGN KEY (`stocktake_id`) REFERENCES `stocktake`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`counted_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
