CREATE TABLE `expected_stock` (
	`place_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`millionths` integer NOT NULL,
	PRIMARY KEY(`place_id`, `lot_id`),
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "expected_stock_millionths" CHECK(typeof("expected_stock"."millionths") = 'integer' AND "expected_stock"."millionths" >= 0)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `pool_event` (
	`id` text PRIMARY KEY NOT NULL,
	`how` text NOT NULL,
	`reverses_id` text,
	`command_key` text NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	FOREIGN KEY (`reverses_id`) REFERENCES `pool_event`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "pool_event_how" CHECK("pool_event"."how" IN ('seen', 'attributed'))
);
--> statement-breakpoint
CREATE UNIQUE INDEX `pool_event_reverses_id_unique` ON `pool_event` (`reverses_id`);--> statement-breakpoint
CREATE INDEX `pool_event_command` ON `pool_event` (`command_key`);--> statement-breakpoint
CREATE TABLE `pool_movement` (
	`movement_id` text PRIMARY KEY NOT NULL,
	`event_id` text NOT NULL,
	`is_swap` integer NOT NULL,
	FOREIGN KEY (`movement_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`event_id`) REFERENCES `pool_event`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pool_movement_event` ON `pool_movement` (`event_id`);--> statement-breakpoint
CREATE TABLE `pool_share` (
	`event_id` text NOT NULL,
	`place_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`booked` integer NOT NULL,
	`share` integer NOT NULL,
	`expected` integer NOT NULL,
	PRIMARY KEY(`event_id`, `place_id`, `lot_id`),
	FOREIGN KEY (`event_id`) REFERENCES `pool_event`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pool_share_place` ON `pool_share` (`place_id`,`lot_id`);--> statement-breakpoint
ALTER TABLE `lot` ADD `strain` text;--> statement-breakpoint
ALTER TABLE `lot` ADD `is_before_books` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
-- Lots that stand together when this begins: to be expected is what is booked.
INSERT INTO `expected_stock` (`place_id`, `lot_id`, `millionths`)
SELECT `place_id`, `lot_id`, `quantity` * 1000000 FROM `stock` JOIN `place` ON `place`.`id` = `stock`.`place_id` WHERE `place`.`kind` IN ('tank', 'vessel');
