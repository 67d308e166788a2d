ALTER TABLE `agent` ADD `substance` text;--> statement-breakpoint
ALTER TABLE `food` ADD `serves_as` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `other_names` text;--> statement-breakpoint
ALTER TABLE `species` ADD `look_alikes` text;--> statement-breakpoint
ALTER TABLE `species` ADD `waters` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `crossing` text;--> statement-breakpoint
ALTER TABLE `species` ADD `hardness` text;--> statement-breakpoint
ALTER TABLE `species` ADD `traded_cm` real;--> statement-breakpoint
ALTER TABLE `species` ADD `needs` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `escapes` text;--> statement-breakpoint
ALTER TABLE `species` ADD `fins` text;--> statement-breakpoint
ALTER TABLE `species` ADD `breeds` text;--> statement-breakpoint
ALTER TABLE `species` ADD `own_kind` text;--> statement-breakpoint
ALTER TABLE `species` ADD `company` text;--> statement-breakpoint
ALTER TABLE `species` ADD `eats` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `habits` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `catch_with` text;--> statement-breakpoint
ALTER TABLE `species` ADD `hurts` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `poisons` text;--> statement-breakpoint
ALTER TABLE `species` ADD `agent_groups` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `copper` text;--> statement-breakpoint
ALTER TABLE `species` ADD `formalin` text;--> statement-breakpoint
ALTER TABLE `species` ADD `malachite_green` text;--> statement-breakpoint
ALTER TABLE `species` ADD `methylene_blue` text;--> statement-breakpoint
ALTER TABLE `species` ADD `salt` text;--> statement-breakpoint
ALTER TABLE `species` ADD `praziquantel` text;--> statement-breakpoint
ALTER TABLE `species` ADD `chloroquine` text;--> statement-breakpoint
ALTER TABLE `species` ADD `low_salinity` text;--> statement-breakpoint
ALTER TABLE `species` ADD `mouth` text;--> statement-breakpoint
ALTER TABLE `species` ADD `first_food_kinds` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `species` ADD `bears_hunger` text;--> statement-breakpoint
ALTER TABLE `species` ADD `law` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
UPDATE `species` SET `copper` = 'forbidden' WHERE EXISTS (SELECT 1 FROM json_each(`species`.`sensitivities`) WHERE value = 'copper');--> statement-breakpoint
UPDATE `species` SET `salt` = 'forbidden' WHERE EXISTS (SELECT 1 FROM json_each(`species`.`sensitivities`) WHERE value = 'salt');--> statement-breakpoint
UPDATE `species` SET `formalin` = 'forbidden' WHERE EXISTS (SELECT 1 FROM json_each(`species`.`sensitivities`) WHERE value = 'formalin');--> statement-breakpoint
UPDATE `species` SET `malachite_green` = 'forbidden', `methylene_blue` = 'forbidden' WHERE EXISTS (SELECT 1 FROM json_each(`species`.`sensitivities`) WHERE value = 'medicine dyes');--> statement-breakpoint
UPDATE `species` SET `sensitivities` = (SELECT json_group_array(value) FROM json_each(`species`.`sensitivities`) WHERE value NOT IN ('copper', 'salt', 'formalin', 'medicine dyes'));--> statement-breakpoint
UPDATE `system` SET `agents` = replace(`agents`, '"medicine dyes"', '"malachite green","methylene blue"');--> statement-breakpoint
UPDATE `agent` SET `substance` = 'copper' WHERE `substance` IS NULL AND lower(`name`) LIKE '%copper%';--> statement-breakpoint
UPDATE `agent` SET `substance` = 'formalin' WHERE `substance` IS NULL AND lower(`name`) LIKE '%formalin%';--> statement-breakpoint
UPDATE `agent` SET `substance` = 'malachite green' WHERE `substance` IS NULL AND lower(`name`) LIKE '%malachite green%';--> statement-breakpoint
UPDATE `agent` SET `substance` = 'methylene blue' WHERE `substance` IS NULL AND lower(`name`) LIKE '%methylene blue%';--> statement-breakpoint
UPDATE `agent` SET `substance` = 'salt' WHERE `substance` IS NULL AND lower(`name`) LIKE '%salt%';--> statement-breakpoint
UPDATE `agent` SET `substance` = 'praziquantel' WHERE `substance` IS NULL AND lower(`name`) LIKE '%praziquantel%';--> statement-breakpoint
UPDATE `agent` SET `substance` = 'chloroquine' WHERE `substance` IS NULL AND lower(`name`) LIKE '%chloroquine%';
