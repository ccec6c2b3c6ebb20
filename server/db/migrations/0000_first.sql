CREATE TABLE `activity` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`at` datetime(3) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`subject` varchar(10) NOT NULL,
	`subject_id` varchar(36) NOT NULL,
	`what` varchar(100) NOT NULL,
	`before` json,
	`after` json,
	CONSTRAINT `activity_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `arrivals` (
	`upload_id` char(32) NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`is_new` boolean NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `arrivals_upload_id` PRIMARY KEY(`upload_id`)
);
--> statement-breakpoint
CREATE TABLE `assets` (
	`id` varchar(36) NOT NULL,
	`sha256` char(64) NOT NULL,
	`format` varchar(10) NOT NULL,
	`width_px` int NOT NULL,
	`height_px` int NOT NULL,
	`bytes` bigint NOT NULL,
	`alpha` boolean NOT NULL,
	`animated` boolean NOT NULL,
	`stem` varchar(80) NOT NULL,
	`extension` varchar(5) NOT NULL,
	`folder` varchar(420) NOT NULL DEFAULT '',
	`label` json NOT NULL,
	`drafted` json NOT NULL,
	`notes` json NOT NULL,
	`original_name` varchar(300) NOT NULL,
	`title` varchar(300) NOT NULL,
	`maker` varchar(300) NOT NULL,
	`licence` varchar(30) NOT NULL,
	`alt_state` varchar(12) NOT NULL,
	`search` text NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`deleted_at` datetime(3),
	CONSTRAINT `assets_id` PRIMARY KEY(`id`),
	CONSTRAINT `assets_sha256` UNIQUE(`sha256`),
	CONSTRAINT `assets_stem` UNIQUE(`stem`)
);
--> statement-breakpoint
CREATE TABLE `cuts` (
	`asset_id` varchar(36) NOT NULL,
	`recipe` varchar(60) NOT NULL,
	`width_px` int NOT NULL,
	`format` varchar(10) NOT NULL,
	`quality` int NOT NULL,
	`bytes` int NOT NULL,
	`seconds` double NOT NULL,
	CONSTRAINT `cuts_asset_id_recipe_width_px_format_quality_pk` PRIMARY KEY(`asset_id`,`recipe`,`width_px`,`format`,`quality`)
);
--> statement-breakpoint
CREATE TABLE `folders` (
	`path` varchar(420) NOT NULL,
	CONSTRAINT `folders_path` PRIMARY KEY(`path`)
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` varchar(36) NOT NULL,
	`kind` varchar(30) NOT NULL,
	`title` varchar(300) NOT NULL,
	`input` json NOT NULL,
	`state` varchar(10) NOT NULL,
	`stop_asked` boolean NOT NULL DEFAULT false,
	`done_steps` int NOT NULL DEFAULT 0,
	`all_steps` int NOT NULL DEFAULT 0,
	`words` varchar(500) NOT NULL DEFAULT '',
	`result_key` varchar(200),
	`result_bytes` bigint,
	`lease_until` datetime(3),
	`attempts` int NOT NULL DEFAULT 0,
	`created_by` varchar(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `jobs_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `pages` (
	`id` varchar(36) NOT NULL,
	`target_id` varchar(36) NOT NULL,
	`title` varchar(300) NOT NULL,
	`doc` json NOT NULL,
	`due` varchar(10),
	`version` int NOT NULL DEFAULT 1,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	`updated_by` varchar(36) NOT NULL,
	CONSTRAINT `pages_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `people` (
	`id` varchar(36) NOT NULL,
	`name` varchar(100) NOT NULL,
	`email` varchar(200) NOT NULL,
	`role` varchar(20) NOT NULL,
	`password_hash` varchar(200) NOT NULL,
	CONSTRAINT `people_id` PRIMARY KEY(`id`),
	CONSTRAINT `people_email` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `placements` (
	`page_id` varchar(36) NOT NULL,
	`placement_id` varchar(64) NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`ordinal` int NOT NULL,
	CONSTRAINT `placements_page_id_placement_id_pk` PRIMARY KEY(`page_id`,`placement_id`)
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`id` varchar(128) NOT NULL,
	`data` json NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `sessions_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`name` varchar(40) NOT NULL,
	`value` text NOT NULL,
	CONSTRAINT `settings_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `targets` (
	`id` varchar(36) NOT NULL,
	`rules` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `targets_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `activity_subject` ON `activity` (`subject`,`subject_id`,`id`);--> statement-breakpoint
CREATE INDEX `assets_created` ON `assets` (`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `assets_folder` ON `assets` (`folder`);--> statement-breakpoint
CREATE INDEX `assets_width` ON `assets` (`width_px`,`id`);--> statement-breakpoint
CREATE INDEX `assets_licence` ON `assets` (`licence`);--> statement-breakpoint
CREATE INDEX `jobs_state` ON `jobs` (`state`,`created_at`);--> statement-breakpoint
CREATE INDEX `pages_updated` ON `pages` (`updated_at`);--> statement-breakpoint
CREATE INDEX `placements_asset` ON `placements` (`asset_id`);--> statement-breakpoint
CREATE INDEX `sessions_expires` ON `sessions` (`expires_at`);--> statement-breakpoint
CREATE FULLTEXT INDEX `assets_search` ON `assets` (`search`);
