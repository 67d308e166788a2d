CREATE TABLE `notice` (
	`id` text PRIMARY KEY NOT NULL,
	`at_ms` integer NOT NULL,
	`facts` text NOT NULL,
	`seen_by_id` text,
	`seen_at_ms` integer,
	FOREIGN KEY (`seen_by_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
