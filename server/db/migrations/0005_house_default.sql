CREATE TABLE `house_default` (
	`situation` text PRIMARY KEY NOT NULL,
	`school_key` text,
	`version` integer NOT NULL
);
