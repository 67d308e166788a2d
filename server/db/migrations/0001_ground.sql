CREATE TABLE `audit_entry` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at_ms` integer NOT NULL,
	`staff_id` text,
	`action` text NOT NULL,
	`subject` text NOT NULL,
	`changes` text,
	`command_key` text,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `audit_entry_at` ON `audit_entry` (`at_ms`);--> statement-breakpoint
CREATE INDEX `audit_entry_command` ON `audit_entry` (`command_key`);--> statement-breakpoint
CREATE TABLE `food` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`thaw_minutes` integer,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `food_name_unique` ON `food` (`name`);--> statement-breakpoint
CREATE TABLE `house_limit` (
	`key` text PRIMARY KEY NOT NULL,
	`value` real NOT NULL,
	`source` text NOT NULL,
	`version` integer NOT NULL,
	`changed_by_id` text NOT NULL,
	`changed_at_ms` integer NOT NULL,
	FOREIGN KEY (`changed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `list_mapping` (
	`supplier_id` text NOT NULL,
	`heading` text NOT NULL,
	`mapping` text NOT NULL,
	PRIMARY KEY(`supplier_id`, `heading`),
	FOREIGN KEY (`supplier_id`) REFERENCES `supplier`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `source` (
	`id` text PRIMARY KEY NOT NULL,
	`supplier_id` text NOT NULL,
	`name` text NOT NULL,
	`origin` text NOT NULL,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer,
	FOREIGN KEY (`supplier_id`) REFERENCES `supplier`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `source_of_supplier` ON `source` (`supplier_id`,`name`);--> statement-breakpoint
CREATE TABLE `tool_set` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`zone_id` text,
	`marking` text,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer,
	FOREIGN KEY (`zone_id`) REFERENCES `zone`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tool_set_name_unique` ON `tool_set` (`name`);--> statement-breakpoint
CREATE TABLE `zone` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `zone_name_unique` ON `zone` (`name`);--> statement-breakpoint
DROP INDEX `tank_spot`;--> statement-breakpoint
ALTER TABLE `tank` ADD `gross_volume_l` real;--> statement-breakpoint
ALTER TABLE `tank` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `tank` ADD `retired_at_ms` integer;--> statement-breakpoint
CREATE UNIQUE INDEX `tank_spot` ON `tank` (`rack`,`shelf`,`position`) WHERE "tank"."retired_at_ms" IS NULL;--> statement-breakpoint
ALTER TABLE `crate` ADD `note` text;--> statement-breakpoint
ALTER TABLE `crate` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `line` ADD `origin` text;--> statement-breakpoint
ALTER TABLE `line` ADD `strain` text;--> statement-breakpoint
ALTER TABLE `line` ADD `identity` text;--> statement-breakpoint
ALTER TABLE `line` ADD `promised_to` text;--> statement-breakpoint
ALTER TABLE `line` ADD `note` text;--> statement-breakpoint
ALTER TABLE `room` ADD `temperature_unit` text DEFAULT '°C' NOT NULL;--> statement-breakpoint
ALTER TABLE `room` ADD `volume_unit` text DEFAULT 'L' NOT NULL;--> statement-breakpoint
ALTER TABLE `room` ADD `salinity_unit` text DEFAULT 'ppt' NOT NULL;--> statement-breakpoint
ALTER TABLE `room` ADD `sg_reference` text DEFAULT '25/25' NOT NULL;--> statement-breakpoint
ALTER TABLE `room` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `session` ADD `device` text;--> statement-breakpoint
ALTER TABLE `session` ADD `last_seen_at_ms` integer;--> statement-breakpoint
ALTER TABLE `species` ADD `scientific_name` text;--> statement-breakpoint
ALTER TABLE `species` ADD `strains` text;--> statement-breakpoint
ALTER TABLE `species` ADD `water` text;--> statement-breakpoint
ALTER TABLE `species` ADD `adult_cm` real;--> statement-breakpoint
ALTER TABLE `species` ADD `usual_mass_g` real;--> statement-breakpoint
ALTER TABLE `species` ADD `temp_c_min` real;--> statement-breakpoint
ALTER TABLE `species` ADD `temp_c_max` real;--> statement-breakpoint
ALTER TABLE `species` ADD `ph_min` real;--> statement-breakpoint
ALTER TABLE `species` ADD `ph_max` real;--> statement-breakpoint
ALTER TABLE `species` ADD `salinity_ppt_min` real;--> statement-breakpoint
ALTER TABLE `species` ADD `salinity_ppt_max` real;--> statement-breakpoint
ALTER TABLE `species` ADD `group_min` integer;--> statement-breakpoint
ALTER TABLE `species` ADD `temperament` text;--> statement-breakpoint
ALTER TABLE `species` ADD `tolerance` text;--> statement-breakpoint
ALTER TABLE `species` ADD `sensitivities` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `share_seen_percent` integer;--> statement-breakpoint
ALTER TABLE `species` ADD `first_meal_days` integer;--> statement-breakpoint
ALTER TABLE `species` ADD `first_foods` text;--> statement-breakpoint
ALTER TABLE `species` ADD `basis` text;--> statement-breakpoint
ALTER TABLE `species` ADD `note` text;--> statement-breakpoint
ALTER TABLE `species` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `retired_at_ms` integer;--> statement-breakpoint
ALTER TABLE `staff` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `staff` ADD `retired_at_ms` integer;--> statement-breakpoint
ALTER TABLE `supplier` ADD `shipping_temp_c` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `shipping_salinity_ppt` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `shipping_ph` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `shipping_alkalinity_meq_l` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `transit_hours` real;--> statement-breakpoint
ALTER TABLE `supplier` ADD `note` text;--> statement-breakpoint
ALTER TABLE `supplier` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `supplier` ADD `retired_at_ms` integer;--> statement-breakpoint
ALTER TABLE `system` ADD `zone_id` text REFERENCES zone(id);--> statement-breakpoint
ALTER TABLE `system` ADD `note` text;--> statement-breakpoint
ALTER TABLE `system` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `system` ADD `retired_at_ms` integer;