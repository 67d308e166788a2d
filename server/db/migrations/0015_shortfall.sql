CREATE TABLE `hold_shortfall` (
	`movement_id` text NOT NULL,
	`lot_id` text NOT NULL,
	`day` integer NOT NULL,
	`of` integer NOT NULL,
	`reason` text NOT NULL,
	PRIMARY KEY(`movement_id`, `lot_id`),
	FOREIGN KEY (`movement_id`) REFERENCES `movement`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lot_id`) REFERENCES `lot`(`id`) ON UPDATE no action ON DELETE no action
);
