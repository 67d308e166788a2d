ALTER TABLE `check` ADD `answers` text;--> statement-breakpoint
ALTER TABLE `check` ADD `counts` text;