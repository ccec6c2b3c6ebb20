CREATE TABLE `clippers` (
	`id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`token_hash` char(64) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`revoked_at` datetime(3),
	CONSTRAINT `clippers_id` PRIMARY KEY(`id`),
	CONSTRAINT `clippers_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `clips` (
	`id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`address` varchar(2000) NOT NULL,
	`selection` varchar(1000) NOT NULL,
	`at` datetime(3) NOT NULL,
	`opened_at` datetime(3),
	CONSTRAINT `clips_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `kept_apart` (
	`one_id` varchar(36) NOT NULL,
	`other_id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `kept_apart_one_id_other_id_pk` PRIMARY KEY(`one_id`,`other_id`)
);
--> statement-breakpoint
CREATE TABLE `looks` (
	`asset_id` varchar(36) NOT NULL,
	`hash` char(16) NOT NULL,
	`first` smallint unsigned NOT NULL,
	`second` smallint unsigned NOT NULL,
	`third` smallint unsigned NOT NULL,
	`fourth` smallint unsigned NOT NULL,
	CONSTRAINT `looks_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
CREATE TABLE `pins` (
	`person_id` varchar(36) NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `pins_person_id_asset_id_pk` PRIMARY KEY(`person_id`,`asset_id`)
);
--> statement-breakpoint
CREATE TABLE `provenance` (
	`id` varchar(36) NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`way` varchar(10) NOT NULL,
	`source_id` varchar(30),
	`source_key` varchar(300),
	`stamp` varchar(200),
	`address` varchar(2000),
	`page_address` varchar(2000),
	`file_name` varchar(300) NOT NULL,
	`said` json NOT NULL,
	CONSTRAINT `provenance_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `takings` (
	`job_id` varchar(36) NOT NULL,
	`ordinal` int NOT NULL,
	`picture` json NOT NULL,
	`state` varchar(10) NOT NULL,
	`sentence` varchar(500) NOT NULL DEFAULT '',
	`asset_id` varchar(36),
	`is_new` boolean,
	CONSTRAINT `takings_job_id_ordinal_pk` PRIMARY KEY(`job_id`,`ordinal`)
);
--> statement-breakpoint
ALTER TABLE `assets` ADD `conditions` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `assets` ADD `trim` json;--> statement-breakpoint
ALTER TABLE `assets` ADD `folded_into` varchar(36);--> statement-breakpoint
CREATE INDEX `clippers_person` ON `clippers` (`person_id`);--> statement-breakpoint
CREATE INDEX `clips_person` ON `clips` (`person_id`,`at`);--> statement-breakpoint
CREATE INDEX `looks_first` ON `looks` (`first`);--> statement-breakpoint
CREATE INDEX `looks_second` ON `looks` (`second`);--> statement-breakpoint
CREATE INDEX `looks_third` ON `looks` (`third`);--> statement-breakpoint
CREATE INDEX `looks_fourth` ON `looks` (`fourth`);--> statement-breakpoint
CREATE INDEX `provenance_asset` ON `provenance` (`asset_id`,`at`);--> statement-breakpoint
CREATE INDEX `provenance_source` ON `provenance` (`source_id`,`source_key`);--> statement-breakpoint
CREATE INDEX `assets_folded` ON `assets` (`folded_into`);