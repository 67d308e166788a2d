CREATE TABLE `fight` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`volume_l` real,
	`species_a_id` text NOT NULL,
	`species_b_id` text NOT NULL,
	`harm` text NOT NULL,
	`at_ms` integer NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`species_a_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`species_b_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `fight_at` ON `fight` (`at_ms`);--> statement-breakpoint
CREATE INDEX `fight_tank` ON `fight` (`tank_id`,`at_ms`);--> statement-breakpoint
CREATE TABLE `introduction` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`tank_id` text NOT NULL,
	`from_tank_id` text NOT NULL,
	`newcomers` text NOT NULL,
	`plan` text NOT NULL,
	`started_at_ms` integer NOT NULL,
	`ended_at_ms` integer,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`from_tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `introduction_number_unique` ON `introduction` (`number`);--> statement-breakpoint
CREATE INDEX `introduction_tank` ON `introduction` (`tank_id`);--> statement-breakpoint
CREATE TABLE `introduction_event` (
	`id` text PRIMARY KEY NOT NULL,
	`introduction_id` text NOT NULL,
	`kind` text NOT NULL,
	`step_index` integer,
	`who` text,
	`level` text,
	`note` text,
	`at_ms` integer NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`introduction_id`) REFERENCES `introduction`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `introduction_event_of` ON `introduction_event` (`introduction_id`,`at_ms`);--> statement-breakpoint
CREATE INDEX `introduction_event_command` ON `introduction_event` (`command_key`);--> statement-breakpoint
CREATE TABLE `lift` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`at_ms` integer NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `lift_tank` ON `lift` (`tank_id`,`at_ms`);--> statement-breakpoint
CREATE TABLE `lot_name` (
	`id` text PRIMARY KEY NOT NULL,
	`lot_id` text NOT NULL,
	`species_id` text NOT NULL,
	`strain` text,
	`note` text,
	`staff_id` text,
	`command_key` text,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`species_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `lot_name_lot` ON `lot_name` (`lot_id`,`recorded_at_ms`);--> statement-breakpoint
CREATE TABLE `move_rule` (
	`id` integer PRIMARY KEY NOT NULL,
	`changes` text NOT NULL,
	`version` integer NOT NULL,
	`changed_by_id` text NOT NULL,
	`changed_at_ms` integer NOT NULL,
	FOREIGN KEY (`changed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `moved_individual` (
	`id` text PRIMARY KEY NOT NULL,
	`command_key` text NOT NULL,
	`species_id` text NOT NULL,
	`sex` text,
	`mark` text,
	FOREIGN KEY (`species_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `moved_individual_command` ON `moved_individual` (`command_key`);--> statement-breakpoint
CREATE TABLE `vessel` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`litres` real NOT NULL,
	`air` text,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer,
	FOREIGN KEY (`id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `vessel_name_unique` ON `vessel` (`name`);--> statement-breakpoint
CREATE TABLE `vessel_water` (
	`id` text PRIMARY KEY NOT NULL,
	`vessel_id` text NOT NULL,
	`tank_id` text,
	`at_ms` integer NOT NULL,
	`command_key` text NOT NULL,
	FOREIGN KEY (`vessel_id`) REFERENCES `vessel`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `vessel_water_vessel` ON `vessel_water` (`vessel_id`,`at_ms`);--> statement-breakpoint
ALTER TABLE `tank` ADD `depth_cm` real;--> statement-breakpoint
ALTER TABLE `tank` ADD `height_cm` real;--> statement-breakpoint
ALTER TABLE `tank` ADD `corners` text;--> statement-breakpoint
ALTER TABLE `tank` ADD `decor` text;--> statement-breakpoint
ALTER TABLE `tool_set` ADD `net_width_cm` real;--> statement-breakpoint
ALTER TABLE `tool_set` ADD `net_mesh` text;--> statement-breakpoint
ALTER TABLE `zone` ADD `sources_rule` text;--> statement-breakpoint
CREATE INDEX `tank_override_command` ON `tank_override` (`command_key`);--> statement-breakpoint
CREATE INDEX `water_load_at` ON `water_load` (`at_ms`);