CREATE TABLE `audit` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`at` datetime(3) NOT NULL,
	`person_id` varchar(36),
	`who` varchar(200) NOT NULL,
	`what` varchar(30) NOT NULL,
	`subject` varchar(300) NOT NULL,
	`detail` varchar(1000) NOT NULL DEFAULT '',
	`address` varchar(60) NOT NULL DEFAULT '',
	CONSTRAINT `audit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `removals` (
	`key` varchar(400) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `removals_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
CREATE TABLE `uploads` (
	`id` char(32) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`bytes` bigint NOT NULL,
	`at` datetime(3) NOT NULL,
	`locked_by` char(36),
	`locked_until` datetime(3),
	`is_wanted` boolean NOT NULL DEFAULT false,
	CONSTRAINT `uploads_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `arrivals` ADD `person_id` varchar(36);--> statement-breakpoint
ALTER TABLE `jobs` ADD `attempt_id` char(36);--> statement-breakpoint
ALTER TABLE `names_out` ADD `scheme` smallint DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `is_demo` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `must_change` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `person_id` varchar(36);--> statement-breakpoint
ALTER TABLE `sessions` ADD `signed_in_at` datetime(3);--> statement-breakpoint
ALTER TABLE `sessions` ADD `seen_at` datetime(3);--> statement-breakpoint
ALTER TABLE `sessions` ADD `address` varchar(60) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `agent` varchar(200) DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `audit_at` ON `audit` (`at`);--> statement-breakpoint
CREATE INDEX `audit_what` ON `audit` (`what`,`at`);--> statement-breakpoint
CREATE INDEX `audit_subject` ON `audit` (`what`,`subject`,`at`);--> statement-breakpoint
CREATE INDEX `uploads_person` ON `uploads` (`person_id`);--> statement-breakpoint
CREATE INDEX `uploads_at` ON `uploads` (`at`);--> statement-breakpoint
UPDATE `people` SET `is_demo` = true WHERE `id` IN ('mara', 'piet', 'sunniva', 'joss') AND `email` LIKE '%@saltmere.example' AND EXISTS (SELECT 1 FROM `settings` WHERE `name` = 'demo');--> statement-breakpoint
INSERT IGNORE INTO `settings` (`name`, `value`) VALUES ('naming', '');--> statement-breakpoint
INSERT IGNORE INTO `settings` (`name`, `value`) SELECT 'demo-house', `value` FROM `settings` WHERE `name` = 'demo';--> statement-breakpoint
DELETE FROM `arrivals` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `arrivals`.`asset_id`);--> statement-breakpoint
DELETE FROM `clippers` WHERE NOT EXISTS (SELECT 1 FROM `people` WHERE `people`.`id` = `clippers`.`person_id`);--> statement-breakpoint
DELETE FROM `cuts` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `cuts`.`asset_id`);--> statement-breakpoint
DELETE FROM `kept_apart` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `kept_apart`.`one_id`);--> statement-breakpoint
DELETE FROM `kept_apart` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `kept_apart`.`other_id`);--> statement-breakpoint
DELETE FROM `looks` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `looks`.`asset_id`);--> statement-breakpoint
DELETE FROM `pins` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `pins`.`asset_id`);--> statement-breakpoint
DELETE FROM `placements` WHERE NOT EXISTS (SELECT 1 FROM `pages` WHERE `pages`.`id` = `placements`.`page_id`);--> statement-breakpoint
DELETE FROM `provenance` WHERE NOT EXISTS (SELECT 1 FROM `assets` WHERE `assets`.`id` = `provenance`.`asset_id`);--> statement-breakpoint
DELETE FROM `run_steps` WHERE NOT EXISTS (SELECT 1 FROM `jobs` WHERE `jobs`.`id` = `run_steps`.`job_id`);--> statement-breakpoint
DELETE FROM `takings` WHERE NOT EXISTS (SELECT 1 FROM `jobs` WHERE `jobs`.`id` = `takings`.`job_id`);--> statement-breakpoint
ALTER TABLE `arrivals` ADD CONSTRAINT `arrivals_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `clippers` ADD CONSTRAINT `clippers_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `cuts` ADD CONSTRAINT `cuts_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `kept_apart` ADD CONSTRAINT `kept_apart_one_id_assets_id_fk` FOREIGN KEY (`one_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `kept_apart` ADD CONSTRAINT `kept_apart_other_id_assets_id_fk` FOREIGN KEY (`other_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `looks` ADD CONSTRAINT `looks_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pages` ADD CONSTRAINT `pages_target_id_targets_id_fk` FOREIGN KEY (`target_id`) REFERENCES `targets`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pins` ADD CONSTRAINT `pins_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `placements` ADD CONSTRAINT `placements_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `provenance` ADD CONSTRAINT `provenance_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `run_steps` ADD CONSTRAINT `run_steps_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `takings` ADD CONSTRAINT `takings_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `activity_at` ON `activity` (`at`);--> statement-breakpoint
CREATE INDEX `jobs_person` ON `jobs` (`created_by`,`kind`,`created_at`);--> statement-breakpoint
CREATE INDEX `provenance_key` ON `provenance` (`source_key`);--> statement-breakpoint
CREATE INDEX `sessions_person` ON `sessions` (`person_id`);