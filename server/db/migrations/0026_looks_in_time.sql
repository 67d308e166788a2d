CREATE INDEX `check_at` ON `check` (`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `check_replaced` ON `check` (`replaced_by_id`) WHERE "check"."replaced_by_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX `observation_at` ON `observation` (`kind`,`happened_at_ms`);--> statement-breakpoint
CREATE INDEX `observation_replaced` ON `observation` (`replaced_by_seq`) WHERE "observation"."replaced_by_seq" IS NOT NULL;