CREATE TABLE `breach_decision` (
	`id` text PRIMARY KEY NOT NULL,
	`contact_id` text NOT NULL,
	`decision` text NOT NULL,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `breach_decision_contact` ON `breach_decision` (`contact_id`);--> statement-breakpoint
CREATE INDEX `breach_decision_undone` ON `breach_decision` (`undone_at_ms`);--> statement-breakpoint
CREATE TABLE `hold_begin` (
	`lot_id` text PRIMARY KEY NOT NULL,
	`policy_id` text,
	`rule` integer,
	`skipped` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `hold_carried` (
	`place_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`millionths` integer NOT NULL,
	`policy_id` text,
	`began_ms` integer,
	`is_ended` integer NOT NULL,
	PRIMARY KEY(`place_id`, `lot_id`),
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `hold_entry` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`place_id` text NOT NULL,
	`lot_id` text,
	`policy_id` text,
	`phase` text,
	`days` integer,
	`word` text,
	`reason` text,
	`short_days` integer,
	`short_gates` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `hold_entry_happened` ON `hold_entry` (`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `hold_entry_lot` ON `hold_entry` (`lot_id`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `hold_entry_command` ON `hold_entry` (`command_key`);--> statement-breakpoint
CREATE INDEX `hold_entry_undone` ON `hold_entry` (`undone_at_ms`);--> statement-breakpoint
CREATE TABLE `hold_policy` (
	`id` text PRIMARY KEY NOT NULL,
	`policy` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`retired_at_ms` integer
);
--> statement-breakpoint
CREATE TABLE `hold_rules` (
	`version` integer PRIMARY KEY NOT NULL,
	`rules` text NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `hold_start` (
	`id` integer PRIMARY KEY NOT NULL,
	`at_ms` integer NOT NULL,
	`carried_at_ms` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `pairing` (
	`id` text PRIMARY KEY NOT NULL,
	`lot_a` text NOT NULL,
	`lot_b` text NOT NULL,
	`tank_id` text NOT NULL,
	`fish_a` integer NOT NULL,
	`fish_b` integer NOT NULL,
	`paired_a` integer NOT NULL,
	`paired_b` integer NOT NULL,
	`looks_h` text NOT NULL,
	`started_at_ms` integer NOT NULL,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`lot_a`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_b`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pairing_started` ON `pairing` (`started_at_ms`);--> statement-breakpoint
CREATE INDEX `pairing_command` ON `pairing` (`command_key`);--> statement-breakpoint
CREATE TABLE `pairing_result` (
	`seq` integer PRIMARY KEY NOT NULL,
	`pairing_id` text NOT NULL,
	`result` text NOT NULL,
	`at_ms` integer NOT NULL,
	`reason` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`pairing_id`) REFERENCES `pairing`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pairing_result_of` ON `pairing_result` (`pairing_id`,`seq`);--> statement-breakpoint
CREATE INDEX `pairing_result_at` ON `pairing_result` (`at_ms`);--> statement-breakpoint
CREATE TABLE `tank_water` (
	`seq` integer PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`water_id` text NOT NULL,
	`since_ms` integer NOT NULL,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tank_water_tank` ON `tank_water` (`tank_id`,`seq`);--> statement-breakpoint
ALTER TABLE `hold_shortfall` ADD `gates` text;--> statement-breakpoint
CREATE INDEX `contact_undone` ON `contact` (`undone_at_ms`) WHERE "contact"."undone_at_ms" IS NOT NULL;--> statement-breakpoint
CREATE INDEX `sign_decision_undone` ON `sign_decision` (`undone_at_ms`) WHERE "sign_decision"."undone_at_ms" IS NOT NULL;