CREATE TABLE `said_otherwise` (
	`asset_id` varchar(36) NOT NULL,
	`said_by` varchar(8) NOT NULL,
	`about` varchar(10) NOT NULL,
	`says` varchar(2000) NOT NULL,
	`at` datetime(3) NOT NULL,
	`kept_by` varchar(36),
	CONSTRAINT `said_otherwise_asset_id_said_by_about_pk` PRIMARY KEY(`asset_id`,`said_by`,`about`)
);
--> statement-breakpoint
CREATE TABLE `source_asks` (
	`asset_id` varchar(36) NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`said_before` json NOT NULL,
	`said_now` json NOT NULL,
	CONSTRAINT `source_asks_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
ALTER TABLE `said_otherwise` ADD CONSTRAINT `said_otherwise_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `source_asks` ADD CONSTRAINT `source_asks_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `source_asks_asked` ON `source_asks` (`asked_at`);