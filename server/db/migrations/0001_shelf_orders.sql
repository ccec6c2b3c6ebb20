DROP INDEX `assets_created` ON `assets`;--> statement-breakpoint
DROP INDEX `assets_width` ON `assets`;--> statement-breakpoint
CREATE INDEX `assets_held_newest` ON `assets` (`deleted_at`,`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `assets_held_name` ON `assets` (`deleted_at`,`stem`,`id`);--> statement-breakpoint
CREATE INDEX `assets_held_width` ON `assets` (`deleted_at`,`width_px`,`id`);