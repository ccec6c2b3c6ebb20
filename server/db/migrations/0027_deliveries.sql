CREATE TABLE `credentials` (
	`target_id` varchar(36) NOT NULL,
	`sealed` text NOT NULL,
	`at` datetime(3) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	CONSTRAINT `credentials_target_id` PRIMARY KEY(`target_id`)
);
--> statement-breakpoint
CREATE TABLE `deliveries` (
	`id` varchar(36) NOT NULL,
	`page_id` varchar(36) NOT NULL,
	`target_id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`state` varchar(10) NOT NULL,
	`title` varchar(300) NOT NULL,
	`address` varchar(2000),
	`html` mediumtext,
	`found` mediumtext,
	`found_at` datetime(3),
	`asked_at` datetime(3),
	`compared` json,
	`answered` varchar(20) NOT NULL DEFAULT '',
	`words` varchar(500) NOT NULL DEFAULT '',
	`job_id` char(36) NOT NULL,
	CONSTRAINT `deliveries_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `sent_files` (
	`place` varchar(300) NOT NULL,
	`sha256` char(64) NOT NULL,
	`name` varchar(200) NOT NULL,
	`address` varchar(2000) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `sent_files_place_sha256_name_pk` PRIMARY KEY(`place`,`sha256`,`name`)
);
--> statement-breakpoint
ALTER TABLE `deliveries` ADD CONSTRAINT `deliveries_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `deliveries_page` ON `deliveries` (`page_id`,`at`);--> statement-breakpoint
CREATE INDEX `deliveries_out` ON `deliveries` (`state`,`asked_at`);