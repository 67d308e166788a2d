CREATE TABLE `round_list` (
	`id` integer PRIMARY KEY NOT NULL,
	`changes` text NOT NULL,
	`version` integer NOT NULL,
	`changed_by_id` text NOT NULL,
	`changed_at_ms` integer NOT NULL,
	FOREIGN KEY (`changed_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
