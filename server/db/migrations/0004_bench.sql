CREATE TABLE `agent` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`strength_mg_per_ml` real,
	`bath_mg_l` real,
	`bath_minutes` real,
	`dip_mg_l` real,
	`dip_minutes` real,
	`cautions` text,
	`note` text,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `agent_name_unique` ON `agent` (`name`);--> statement-breakpoint
CREATE TABLE `airline` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`drops_per_ml` real NOT NULL,
	`staff_id` text NOT NULL,
	`calibrated_at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `airline_name_unique` ON `airline` (`name`);--> statement-breakpoint
CREATE TABLE `recheck` (
	`id` text PRIMARY KEY NOT NULL,
	`run_id` text NOT NULL,
	`label` text NOT NULL,
	`usual` text NOT NULL,
	`due_at_ms` integer NOT NULL,
	`look` text,
	`note` text,
	`done_by_id` text,
	`done_at_ms` integer,
	FOREIGN KEY (`run_id`) REFERENCES `run`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`done_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `recheck_due` ON `recheck` (`due_at_ms`) WHERE "recheck"."done_at_ms" IS NULL;--> statement-breakpoint
CREATE TABLE `run` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`plan` text NOT NULL,
	`line_id` text,
	`tank_id` text,
	`to_outside` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`started_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`out_at_ms` integer,
	`look` text,
	`counted_alive` integer,
	`counted_dead` integer,
	`ended_at_ms` integer,
	`ended_by_id` text,
	`outcome` text,
	FOREIGN KEY (`id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`line_id`) REFERENCES `line`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ended_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `run_number_unique` ON `run` (`number`);--> statement-breakpoint
CREATE INDEX `run_open` ON `run` (`started_at_ms`) WHERE "run"."ended_at_ms" IS NULL;--> statement-breakpoint
CREATE INDEX `run_tank` ON `run` (`tank_id`);--> statement-breakpoint
CREATE TABLE `run_event` (
	`id` text PRIMARY KEY NOT NULL,
	`run_id` text NOT NULL,
	`kind` text NOT NULL,
	`step_index` integer NOT NULL,
	`temp_c` real,
	`salinity_ppt` real,
	`ph` real,
	`tan_mg_l` real,
	`is_simulated` integer DEFAULT 0 NOT NULL,
	`ml_per_min` real,
	`alarm` text,
	`until_ms` integer,
	`is_on` integer,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`run_id`) REFERENCES `run`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `run_event_run` ON `run_event` (`run_id`,`happened_at_ms`);--> statement-breakpoint
CREATE UNIQUE INDEX `run_step_once` ON `run_event` (`run_id`,`step_index`) WHERE "run_event"."kind" = 'step' AND "run_event"."undone_at_ms" IS NULL;--> statement-breakpoint
CREATE TABLE `run_movement` (
	`movement_id` text PRIMARY KEY NOT NULL,
	`run_id` text NOT NULL,
	FOREIGN KEY (`movement_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`run_id`) REFERENCES `run`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `run_source` (
	`run_id` text NOT NULL,
	`place_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`quantity` integer NOT NULL,
	PRIMARY KEY(`run_id`, `place_id`, `lot_id`),
	FOREIGN KEY (`run_id`) REFERENCES `run`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `run_source_place` ON `run_source` (`place_id`);--> statement-breakpoint
CREATE TABLE `water_load` (
	`id` text PRIMARY KEY NOT NULL,
	`run_id` text NOT NULL,
	`tank_id` text NOT NULL,
	`litres` real NOT NULL,
	`tan_mg_l` real NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`run_id`) REFERENCES `run`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action
);
