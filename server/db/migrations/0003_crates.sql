CREATE TABLE `bag_photo` (
	`id` text PRIMARY KEY NOT NULL,
	`bag_id` text NOT NULL,
	`width_px` integer NOT NULL,
	`height_px` integer NOT NULL,
	`staff_id` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`removed_by_id` text,
	`removed_at_ms` integer,
	FOREIGN KEY (`bag_id`) REFERENCES `bag`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`removed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `bag_photo_bag` ON `bag_photo` (`bag_id`);--> statement-breakpoint
CREATE TABLE `claim` (
	`crate_id` text PRIMARY KEY NOT NULL,
	`state` text NOT NULL,
	`note` text,
	`sent_at_ms` integer,
	`settled_at_ms` integer,
	`settled_amount` real,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`crate_id`) REFERENCES `crate`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `prepared` (
	`crate_id` text NOT NULL,
	`step` text NOT NULL,
	`staff_id` text NOT NULL,
	`done_at_ms` integer NOT NULL,
	PRIMARY KEY(`crate_id`, `step`),
	FOREIGN KEY (`crate_id`) REFERENCES `crate`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `tank_override` (
	`id` text PRIMARY KEY NOT NULL,
	`line_id` text NOT NULL,
	`tank_id` text NOT NULL,
	`broken` text NOT NULL,
	`reason` text NOT NULL,
	`staff_id` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`line_id`) REFERENCES `line`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tank_override_line` ON `tank_override` (`line_id`);--> statement-breakpoint
ALTER TABLE `bag_record` ADD `ph` real;--> statement-breakpoint
ALTER TABLE `bag_record` ADD `ammonia_mg_l` real;--> statement-breakpoint
ALTER TABLE `bag_record` ADD `has_binder` integer;--> statement-breakpoint
ALTER TABLE `bag_record` ADD `behaviour` text;--> statement-breakpoint
ALTER TABLE `bag_record` ADD `mishap` text;--> statement-breakpoint
ALTER TABLE `crate` ADD `carrier` text;--> statement-breakpoint
ALTER TABLE `crate` ADD `has_list` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `crate` ADD `box` text;--> statement-breakpoint
ALTER TABLE `crate` ADD `box_version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `crate` ADD `closed_at_ms` integer;--> statement-breakpoint
ALTER TABLE `crate` ADD `closed_by_id` text REFERENCES staff(id);--> statement-breakpoint
ALTER TABLE `crate` ADD `closed_because` text;--> statement-breakpoint
ALTER TABLE `line` ADD `billed` integer;--> statement-breakpoint
ALTER TABLE `line` ADD `size_cm` real;--> statement-breakpoint
ALTER TABLE `line` ADD `price_each` real;--> statement-breakpoint
ALTER TABLE `line` ADD `capture` text;--> statement-breakpoint
ALTER TABLE `line` ADD `ate_before` text;--> statement-breakpoint
ALTER TABLE `species` ADD `animal` text;--> statement-breakpoint
ALTER TABLE `species` ADD `swallows_cm` real;--> statement-breakpoint
ALTER TABLE `species` ADD `min_tank_l` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `claim_window_hours` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `claim_rules` text;--> statement-breakpoint
ALTER TABLE `system` ADD `temp_c` real;--> statement-breakpoint
ALTER TABLE `system` ADD `salinity_ppt` real;--> statement-breakpoint
ALTER TABLE `system` ADD `ph` real;--> statement-breakpoint
ALTER TABLE `system` ADD `alkalinity_meq_l` real;--> statement-breakpoint
ALTER TABLE `system` ADD `agents` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `tank` ADD `purpose` text;--> statement-breakpoint
ALTER TABLE `tank` ADD `state` text;