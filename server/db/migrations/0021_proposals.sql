CREATE TABLE `proposals` (
	`id` varchar(36) NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`alt` json NOT NULL,
	`extended_description` text NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `proposals_id` PRIMARY KEY(`id`),
	CONSTRAINT `proposals_piece` UNIQUE(`asset_id`,`person_id`)
);
--> statement-breakpoint
ALTER TABLE `proposals` ADD CONSTRAINT `proposals_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `proposals_at` ON `proposals` (`at`);