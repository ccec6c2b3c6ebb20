DROP INDEX `assets_held_newest` ON `assets`;--> statement-breakpoint
DROP INDEX `assets_held_name` ON `assets`;--> statement-breakpoint
DROP INDEX `assets_held_width` ON `assets`;--> statement-breakpoint
DROP INDEX `assets_folder` ON `assets`;--> statement-breakpoint
DROP INDEX `assets_licence` ON `assets`;--> statement-breakpoint
CREATE INDEX `assets_standing_newest` ON `assets` (`deleted_at`,`folded_into`,`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `assets_standing_name` ON `assets` (`deleted_at`,`folded_into`,`stem`,`id`);--> statement-breakpoint
CREATE INDEX `assets_standing_width` ON `assets` (`deleted_at`,`folded_into`,`width_px`,`id`);--> statement-breakpoint
CREATE INDEX `assets_standing_licence` ON `assets` (`deleted_at`,`folded_into`,`licence`,`width_px`);--> statement-breakpoint
CREATE INDEX `assets_standing_folder` ON `assets` (`deleted_at`,`folded_into`,`folder`,`stem`,`created_at`,`width_px`,`id`);