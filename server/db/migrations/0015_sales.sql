CREATE TABLE `hold_shortfall` (
	`movement_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`day` integer NOT NULL,
	`of` integer NOT NULL,
	`reason` text NOT NULL,
	PRIMARY KEY(`movement_id`, `lot_id`),
	FOREIGN KEY (`movement_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `sale_list` (
	`id` text PRIMARY KEY NOT NULL,
	`command_key` text NOT NULL,
	`rows` integer NOT NULL,
	`fish` integer NOT NULL,
	`booked_at_ms` integer NOT NULL,
	`booked_by_id` text NOT NULL,
	`taken_back_at_ms` integer,
	FOREIGN KEY (`booked_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `sale_mapping` (
	`heading` text PRIMARY KEY NOT NULL,
	`mapping` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sale_row` (
	`list_id` text NOT NULL,
	`row_key` text NOT NULL,
	PRIMARY KEY(`list_id`, `row_key`),
	FOREIGN KEY (`list_id`) REFERENCES `sale_list`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `sale_row_key` ON `sale_row` (`row_key`);--> statement-breakpoint
CREATE TABLE `sale_word` (
	`word_key` text PRIMARY KEY NOT NULL,
	`species_id` text,
	`strain` text,
	FOREIGN KEY (`species_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `crate` ADD `shipping_temp_c` real;--> statement-breakpoint
ALTER TABLE `crate` ADD `shipping_salinity_ppt` real;--> statement-breakpoint
ALTER TABLE `crate` ADD `shipping_ph` real;--> statement-breakpoint
ALTER TABLE `crate` ADD `shipping_alkalinity_meq_l` real;--> statement-breakpoint
ALTER TABLE `crate` ADD `method` text;--> statement-breakpoint
ALTER TABLE `line` ADD `told` text;