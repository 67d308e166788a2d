ALTER TABLE `bag_record` ADD `salinity_by` text;--> statement-breakpoint
ALTER TABLE `bag_record` ADD `ph_by` text;--> statement-breakpoint
ALTER TABLE `room` ADD `salinity_by` text DEFAULT 'refractometer' NOT NULL;--> statement-breakpoint
ALTER TABLE `room` ADD `ph_by` text DEFAULT 'meter' NOT NULL;--> statement-breakpoint
ALTER TABLE `supplier` ADD `usual_water` text;