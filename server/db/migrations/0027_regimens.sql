CREATE TABLE `dose` (
	`id` text PRIMARY KEY NOT NULL,
	`observation_seq` integer NOT NULL,
	`product_id` text NOT NULL,
	`agent` text NOT NULL,
	`tank_id` text NOT NULL,
	`regimen_id` text,
	`given` real NOT NULL,
	`mg` real NOT NULL,
	`offered` real,
	`towards_mg_l` real,
	`is_cut` integer NOT NULL,
	`reasons` text NOT NULL,
	`ticked` text NOT NULL,
	`reason` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`observation_seq`) REFERENCES `observation`(`seq`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`product_id`) REFERENCES `agent`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`regimen_id`) REFERENCES `regimen`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `dose_of_tank` ON `dose` (`tank_id`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `dose_regimen` ON `dose` (`regimen_id`);--> statement-breakpoint
CREATE INDEX `dose_observation` ON `dose` (`observation_seq`);--> statement-breakpoint
CREATE TABLE `regimen` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`tank_id` text NOT NULL,
	`plan` text NOT NULL,
	`note` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	`ended_at_ms` integer,
	`ended_by_id` text,
	`end_reason` text,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ended_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `regimen_ended` ON `regimen` (`ended_at_ms`);--> statement-breakpoint
CREATE TABLE `water_change` (
	`id` text PRIMARY KEY NOT NULL,
	`tank_id` text NOT NULL,
	`litres` real NOT NULL,
	`agent` text,
	`mix_mg_l` real,
	`salinity_ppt` real,
	`regimen_id` text,
	`observation_seq` integer,
	`chore_done_id` text,
	`asked_chore_id` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`undone_by_id` text,
	`undone_at_ms` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`regimen_id`) REFERENCES `regimen`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`observation_seq`) REFERENCES `observation`(`seq`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`undone_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `water_change_of_tank` ON `water_change` (`tank_id`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `water_change_regimen` ON `water_change` (`regimen_id`);--> statement-breakpoint
CREATE TABLE `water_contents` (
	`seq` integer PRIMARY KEY NOT NULL,
	`water_id` text NOT NULL,
	`contents` text NOT NULL,
	`binder_until_ms` integer,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `water_contents_of` ON `water_contents` (`water_id`,`seq`);--> statement-breakpoint
CREATE INDEX `water_contents_binder` ON `water_contents` (`binder_until_ms`) WHERE "water_contents"."binder_until_ms" IS NOT NULL;--> statement-breakpoint
ALTER TABLE `agent` ADD `agent` text;--> statement-breakpoint
ALTER TABLE `agent` ADD `active_percent` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `strength_basis` text;--> statement-breakpoint
ALTER TABLE `agent` ADD `target_mg_l` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `target_basis` text;--> statement-breakpoint
ALTER TABLE `agent` ADD `lo_mg_l` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `hi_mg_l` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `part_percent` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `raise_after_h` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `step_percent` real;--> statement-breakpoint
ALTER TABLE `agent` ADD `done_below_mg_l` real;--> statement-breakpoint
ALTER TABLE `hold_entry` ADD `regimen_id` text;--> statement-breakpoint
CREATE INDEX `hold_entry_regimen` ON `hold_entry` (`regimen_id`) WHERE "hold_entry"."regimen_id" IS NOT NULL;--> statement-breakpoint
ALTER TABLE `observation` ADD `undone_at_ms` integer;--> statement-breakpoint
CREATE INDEX `observation_undone` ON `observation` (`undone_at_ms`) WHERE "observation"."undone_at_ms" IS NOT NULL;--> statement-breakpoint
UPDATE `system` SET `agents` = replace(`agents`, '"medicine dyes"', '"methylene blue","malachite green"');--> statement-breakpoint
-- What somebody typed that stands in the water was found there: it counts until it is cleared, and moves no clock.
INSERT INTO `hold_entry` (`id`, `kind`, `place_id`, `word`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms`)
SELECT lower(hex(randomblob(12))), 'found', `tank`.`id`,
  CASE `said`.`value` WHEN 'copper' THEN 'copperIonic' WHEN 'methylene blue' THEN 'methyleneBlue' ELSE `said`.`value` END,
  (SELECT `id` FROM `staff` ORDER BY `role` = 'lead' DESC, `id` LIMIT 1), 'upgrade', CAST(unixepoch('subsec') * 1000 AS integer), CAST(unixepoch('subsec') * 1000 AS integer)
FROM `system` CROSS JOIN json_each(`system`.`agents`) AS `said` JOIN `tank` ON `tank`.`system_id` = `system`.`id` AND `tank`.`retired_at_ms` IS NULL
WHERE (SELECT count(*) FROM `staff`) > 0;--> statement-breakpoint
ALTER TABLE `system` DROP COLUMN `agents`;