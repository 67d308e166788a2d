CREATE TABLE `bag` (
	`id` text PRIMARY KEY NOT NULL,
	`line_id` text NOT NULL,
	`crate_id` text NOT NULL,
	`number` integer NOT NULL,
	`listed` integer NOT NULL,
	FOREIGN KEY (`id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`line_id`) REFERENCES `line`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`crate_id`) REFERENCES `crate`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bag_number` ON `bag` (`crate_id`,`number`);--> statement-breakpoint
CREATE INDEX `bag_line` ON `bag` (`line_id`);--> statement-breakpoint
CREATE TABLE `bag_record` (
	`id` text PRIMARY KEY NOT NULL,
	`bag_id` text NOT NULL,
	`alive` integer NOT NULL,
	`dead` integer NOT NULL,
	`concerns` text NOT NULL,
	`body` text,
	`skin_temp_c` real,
	`water_temp_c` real,
	`salinity_ppt` real,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	`undone_command_key` text,
	FOREIGN KEY (`bag_id`) REFERENCES `bag`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `bag_record_stands` ON `bag_record` (`bag_id`) WHERE "bag_record"."undone_at_ms" IS NULL;--> statement-breakpoint
CREATE INDEX `bag_record_bag` ON `bag_record` (`bag_id`);--> statement-breakpoint
CREATE TABLE `check` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`round_on` text NOT NULL,
	`round_number` integer NOT NULL,
	`ate` text NOT NULL,
	`signs` text NOT NULL,
	`seen` integer,
	`expected` integer NOT NULL,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`replaced_by_id` text,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`replaced_by_id`) REFERENCES `check`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `check_tank` ON `check` (`tank_id`,`happened_at_ms`,`recorded_at_ms`);--> statement-breakpoint
CREATE INDEX `check_round` ON `check` (`round_on`,`round_number`);--> statement-breakpoint
CREATE TABLE `command` (
	`key` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`body_hash` text NOT NULL,
	`status` integer NOT NULL,
	`answer` text NOT NULL,
	`staff_id` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `command_recorded` ON `command` (`recorded_at_ms`);--> statement-breakpoint
CREATE TABLE `crate` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`supplier_id` text NOT NULL,
	`expected_at_ms` integer,
	`packed_at_ms` integer,
	`created_at_ms` integer NOT NULL,
	FOREIGN KEY (`supplier_id`) REFERENCES `supplier`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `crate_number_unique` ON `crate` (`number`);--> statement-breakpoint
CREATE TABLE `line` (
	`id` text PRIMARY KEY NOT NULL,
	`crate_id` text NOT NULL,
	`position` integer NOT NULL,
	`count` integer NOT NULL,
	`lot_id` text NOT NULL,
	`tank_id` text,
	`version` integer NOT NULL,
	FOREIGN KEY (`crate_id`) REFERENCES `crate`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `line_lot_id_unique` ON `line` (`lot_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `line_position` ON `line` (`crate_id`,`position`);--> statement-breakpoint
CREATE TABLE `lot` (
	`id` text PRIMARY KEY NOT NULL,
	`code` text NOT NULL,
	`species_id` text NOT NULL,
	`origin` text NOT NULL,
	`created_at_ms` integer NOT NULL,
	FOREIGN KEY (`species_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `lot_code_unique` ON `lot` (`code`);--> statement-breakpoint
CREATE TABLE `movement` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`kind` text NOT NULL,
	`lot_id` text NOT NULL,
	`from_place_id` text NOT NULL,
	`to_place_id` text NOT NULL,
	`quantity` integer NOT NULL,
	`reverses_id` text,
	`cause` text,
	`reason` text,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`from_place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`to_place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`reverses_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "movement_quantity" CHECK(typeof("movement"."quantity") = 'integer' AND "movement"."quantity" > 0),
	CONSTRAINT "movement_places" CHECK("movement"."from_place_id" <> "movement"."to_place_id"),
	CONSTRAINT "movement_reversal" CHECK(("movement"."kind" = 'reversal') = ("movement"."reverses_id" IS NOT NULL)),
	CONSTRAINT "movement_direction" CHECK(CASE "movement"."kind"
        WHEN 'arrive' THEN "movement"."from_place_id" = 'outside'
        WHEN 'born' THEN "movement"."from_place_id" = 'outside'
        WHEN 'dead-in-bag' THEN "movement"."to_place_id" = 'outside'
        WHEN 'loss' THEN "movement"."to_place_id" = 'outside'
        WHEN 'release' THEN "movement"."to_place_id" = 'outside'
        WHEN 'move' THEN "movement"."from_place_id" <> 'outside' AND "movement"."to_place_id" <> 'outside'
        WHEN 'count-correction' THEN ("movement"."from_place_id" = 'outside') <> ("movement"."to_place_id" = 'outside') AND "movement"."reason" IS NOT NULL
        WHEN 'reversal' THEN 1
        ELSE 0 END)
);
--> statement-breakpoint
CREATE UNIQUE INDEX `movement_id_unique` ON `movement` (`id`);--> statement-breakpoint
CREATE UNIQUE INDEX `movement_reverses_id_unique` ON `movement` (`reverses_id`);--> statement-breakpoint
CREATE INDEX `movement_from` ON `movement` (`from_place_id`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `movement_to` ON `movement` (`to_place_id`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `movement_command` ON `movement` (`command_key`);--> statement-breakpoint
CREATE INDEX `movement_kind` ON `movement` (`kind`,`happened_at_ms`);--> statement-breakpoint
CREATE TABLE `place` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	CONSTRAINT "place_kind" CHECK("place"."kind" IN ('bag', 'vessel', 'tank', 'outside'))
);
--> statement-breakpoint
CREATE TABLE `room` (
	`id` integer PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`time_zone` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `session` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`opened_by_id` text NOT NULL,
	`created_at_ms` integer NOT NULL,
	`expires_at_ms` integer NOT NULL,
	FOREIGN KEY (`opened_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `session_token_hash_unique` ON `session` (`token_hash`);--> statement-breakpoint
CREATE TABLE `session_recorder` (
	`session_id` text NOT NULL,
	`staff_id` text NOT NULL,
	`identified_at_ms` integer NOT NULL,
	PRIMARY KEY(`session_id`, `staff_id`),
	FOREIGN KEY (`session_id`) REFERENCES `session`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `species` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`created_at_ms` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `species_name_key_unique` ON `species` (`name_key`);--> statement-breakpoint
CREATE TABLE `staff` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`role` text NOT NULL,
	`passphrase_hash` text,
	`pin_hash` text NOT NULL,
	`created_at_ms` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `staff_name_unique` ON `staff` (`name`);--> statement-breakpoint
CREATE TABLE `stock` (
	`place_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`quantity` integer NOT NULL,
	`since_ms` integer NOT NULL,
	PRIMARY KEY(`place_id`, `lot_id`),
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "stock_quantity" CHECK(typeof("stock"."quantity") = 'integer' AND "stock"."quantity" >= 0)
);
--> statement-breakpoint
CREATE TABLE `supplier` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `supplier_name_unique` ON `supplier` (`name`);--> statement-breakpoint
CREATE TABLE `system` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`water` text NOT NULL,
	`sump_l` real
);
--> statement-breakpoint
CREATE UNIQUE INDEX `system_name_unique` ON `system` (`name`);--> statement-breakpoint
CREATE TABLE `tank` (
	`id` text PRIMARY KEY NOT NULL,
	`code` text NOT NULL,
	`kind` text NOT NULL,
	`system_id` text NOT NULL,
	`rack` text NOT NULL,
	`shelf` integer NOT NULL,
	`position` integer NOT NULL,
	`net_volume_l` real,
	FOREIGN KEY (`id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`system_id`) REFERENCES `system`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tank_code_unique` ON `tank` (`code`);--> statement-breakpoint
CREATE INDEX `tank_system` ON `tank` (`system_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `tank_spot` ON `tank` (`rack`,`shelf`,`position`);