CREATE TABLE `alarm_answer` (
	`id` text PRIMARY KEY NOT NULL,
	`stream` text NOT NULL,
	`on` text NOT NULL,
	`found` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `alarm_answer_stream` ON `alarm_answer` (`stream`,`on`);--> statement-breakpoint
CREATE TABLE `monthly_sheet` (
	`month` text PRIMARY KEY NOT NULL,
	`figures` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `outbreak` (
	`id` text PRIMARY KEY NOT NULL,
	`water_id` text NOT NULL,
	`name` text NOT NULL,
	`from_on` text NOT NULL,
	`to_on` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `outbreak_water` ON `outbreak` (`water_id`);--> statement-breakpoint
CREATE TABLE `trial` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`school_a` text NOT NULL,
	`school_b` text NOT NULL,
	`day` integer NOT NULL,
	`crates_per_school` integer NOT NULL,
	`looks` integer NOT NULL,
	`loss_a` real NOT NULL,
	`loss_b` real NOT NULL,
	`seed` integer NOT NULL,
	`schedule` text NOT NULL,
	`note` text,
	`started_at_ms` integer NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`ended_at_ms` integer,
	`ended_by_id` text,
	`ended_because` text,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ended_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `trial_number_unique` ON `trial` (`number`);--> statement-breakpoint
CREATE TABLE `trial_crate` (
	`trial_id` text NOT NULL,
	`crate_id` text NOT NULL,
	`block` text NOT NULL,
	`place` integer NOT NULL,
	`school` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	PRIMARY KEY(`trial_id`, `crate_id`),
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`crate_id`) REFERENCES `crate`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `trial_crate_place` ON `trial_crate` (`trial_id`,`block`,`place`);--> statement-breakpoint
CREATE TABLE `trial_look` (
	`id` text PRIMARY KEY NOT NULL,
	`trial_id` text NOT NULL,
	`look` integer,
	`crate_id` text,
	`decision` text NOT NULL,
	`finding` text,
	`sentence` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`crate_id`) REFERENCES `crate`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `trial_look_trial` ON `trial_look` (`trial_id`);