ALTER TABLE `check` ADD `answers` text;--> statement-breakpoint
ALTER TABLE `check` ADD `counts` text;--> statement-breakpoint
CREATE INDEX `run_source_lot` ON `run_source` (`lot_id`);