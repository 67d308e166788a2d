CREATE TABLE `calendar_address` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`secret_hash` text NOT NULL,
	`created_at_ms` integer NOT NULL,
	`revoked_at_ms` integer,
	`revoked_by_id` text,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`revoked_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `calendar_address_secret_hash_unique` ON `calendar_address` (`secret_hash`);--> statement-breakpoint
CREATE INDEX `calendar_address_staff` ON `calendar_address` (`staff_id`);--> statement-breakpoint
CREATE TABLE `observation` (
	`seq` integer PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`tank_id` text,
	`lot_id` text,
	`species_id` text,
	`word` text,
	`severity` integer,
	`value` real,
	`instrument` text,
	`note` text,
	`about_seq` integer,
	`check_id` text,
	`staff_id` text NOT NULL,
	`command_key` text NOT NULL,
	`happened_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`replaced_by_seq` integer,
	FOREIGN KEY (`tank_id`) REFERENCES `tank`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`species_id`) REFERENCES `species`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`about_seq`) REFERENCES `observation`(`seq`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`check_id`) REFERENCES `check`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`replaced_by_seq`) REFERENCES `observation`(`seq`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "observation_kind" CHECK("observation"."kind" IN ('ate', 'sign', 'seen', 'reading', 'dose', 'restart', 'note')),
	CONSTRAINT "observation_severity" CHECK(("observation"."kind" = 'sign') = ("observation"."severity" IS NOT NULL) AND coalesce("observation"."severity", 1) IN (1, 2))
);
--> statement-breakpoint
CREATE INDEX `observation_tank` ON `observation` (`tank_id`,`kind`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `observation_lot` ON `observation` (`lot_id`,`happened_at_ms`) WHERE "observation"."lot_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX `observation_sign` ON `observation` (`word`,`happened_at_ms`) WHERE "observation"."kind" = 'sign';--> statement-breakpoint
CREATE TABLE `stay` (
	`place_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`from_ms` integer NOT NULL,
	`opened_by_id` text NOT NULL,
	`until_ms` integer,
	`closed_by_id` text,
	`is_possible` integer DEFAULT 0 NOT NULL,
	PRIMARY KEY(`lot_id`, `place_id`, `from_ms`, `opened_by_id`),
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`opened_by_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`closed_by_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action
) WITHOUT ROWID;
--> statement-breakpoint
CREATE INDEX `crate_closed` ON `crate` (`closed_at_ms`);--> statement-breakpoint
CREATE INDEX `movement_lot` ON `movement` (`lot_id`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `movement_eaten` ON `movement` (`happened_at_ms`) WHERE "movement"."cause" = 'eaten';--> statement-breakpoint
CREATE INDEX `recheck_done` ON `recheck` (`done_at_ms`);--> statement-breakpoint
CREATE INDEX `recheck_run` ON `recheck` (`run_id`);--> statement-breakpoint
CREATE INDEX `run_ended` ON `run` (`ended_at_ms`);--> statement-breakpoint
CREATE INDEX `tank_override_rescue` ON `tank_override` (`recorded_at_ms`) WHERE "tank_override"."is_rescue" = 1 AND "tank_override"."seen_at_ms" IS NULL;--> statement-breakpoint
CREATE INDEX `water_load_run` ON `water_load` (`run_id`);--> statement-breakpoint
-- Where fish stood, read out of the movements: by when they happened, without what was taken back.
INSERT INTO `stay` (`place_id`, `lot_id`, `from_ms`, `opened_by_id`, `until_ms`, `closed_by_id`)
SELECT `place_id`, `lot_id`, `at_ms`, `id`, `until_ms`, `closed_by_id` FROM (
  SELECT *, lead(`at_ms`) OVER `course` AS `until_ms`, lead(`id`) OVER `course` AS `closed_by_id` FROM (
    SELECT *, sum(`change`) OVER `course` AS `fish` FROM (
      SELECT `id`, `seq`, `lot_id`, `happened_at_ms` AS `at_ms`, `to_place_id` AS `place_id`, `quantity` AS `change` FROM `movement` AS m WHERE `kind` <> 'reversal' AND NOT EXISTS (SELECT 1 FROM `movement` back WHERE back.`reverses_id` = m.`id`)
      UNION ALL
      SELECT `id`, `seq`, `lot_id`, `happened_at_ms`, `from_place_id`, -`quantity` FROM `movement` AS m WHERE `kind` <> 'reversal' AND NOT EXISTS (SELECT 1 FROM `movement` back WHERE back.`reverses_id` = m.`id`))
    WHERE `place_id` <> 'outside' WINDOW `course` AS (PARTITION BY `lot_id`, `place_id` ORDER BY `at_ms`, `seq`))
  WHERE (`fish` > 0) <> (`fish` - `change` > 0) WINDOW `course` AS (PARTITION BY `lot_id`, `place_id` ORDER BY `at_ms`, `seq`))
WHERE `fish` > 0;--> statement-breakpoint
UPDATE `stock` SET `since_ms` = coalesce((SELECT `from_ms` FROM `stay` WHERE `stay`.`place_id` = `stock`.`place_id` AND `stay`.`lot_id` = `stock`.`lot_id` AND `until_ms` IS NULL), `since_ms`);--> statement-breakpoint
-- Carried over: what checks of before say, one thing a row; their signs slight and of the whole tank.
INSERT INTO `observation` (`kind`, `tank_id`, `word`, `check_id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms`)
SELECT 'ate', `tank_id`, `ate`, `id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms` FROM `check` ORDER BY `recorded_at_ms`, rowid;--> statement-breakpoint
-- Carried over: signs.
INSERT INTO `observation` (`kind`, `tank_id`, `word`, `severity`, `check_id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms`)
SELECT 'sign', c.`tank_id`, s.value, 1, c.`id`, c.`staff_id`, c.`command_key`, c.`happened_at_ms`, c.`recorded_at_ms` FROM `check` c, json_each(CASE WHEN json_valid(c.`signs`) THEN c.`signs` ELSE '[]' END) s ORDER BY c.`recorded_at_ms`, c.rowid, s.key;--> statement-breakpoint
-- Carried over: fish seen.
INSERT INTO `observation` (`kind`, `tank_id`, `value`, `check_id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms`)
SELECT 'seen', `tank_id`, `seen`, `id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms` FROM `check` WHERE `seen` IS NOT NULL ORDER BY `recorded_at_ms`, rowid;--> statement-breakpoint
-- Carried over: notes.
INSERT INTO `observation` (`kind`, `tank_id`, `note`, `check_id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms`)
SELECT 'note', `tank_id`, `note`, `id`, `staff_id`, `command_key`, `happened_at_ms`, `recorded_at_ms` FROM `check` WHERE `note` <> '' ORDER BY `recorded_at_ms`, rowid;--> statement-breakpoint
-- Carried over: corrections. What a check said falls with it.
CREATE INDEX `observation_carried` ON `observation` (`check_id`) WHERE `kind` = 'ate';--> statement-breakpoint
-- Carried over: by which touch.
UPDATE `observation` SET `replaced_by_seq` = (SELECT `by`.`seq` FROM `check` old JOIN `observation` `by` ON `by`.`check_id` = old.`replaced_by_id` AND `by`.`kind` = 'ate' WHERE old.`id` = `observation`.`check_id`)
WHERE `check_id` IN (SELECT `id` FROM `check` WHERE `replaced_by_id` IS NOT NULL);--> statement-breakpoint
-- Carried over: done.
DROP INDEX `observation_carried`;
