ALTER TABLE `assets` ADD `embed` json;--> statement-breakpoint
ALTER TABLE `assets` ADD `embed_key` char(64);--> statement-breakpoint
CREATE INDEX `assets_embed` ON `assets` (`embed_key`,`deleted_at`);