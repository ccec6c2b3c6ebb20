CREATE TABLE `page_versions` (
	`id` varchar(36) NOT NULL,
	`page_id` varchar(36) NOT NULL,
	`name` varchar(200) NOT NULL DEFAULT '',
	`sent` varchar(40),
	`sent_at` datetime(3),
	`doc` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36),
	CONSTRAINT `page_versions_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `sittings` (
	`id` varchar(36) NOT NULL,
	`page_id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`block` varchar(64),
	`seen_at` datetime(3) NOT NULL,
	CONSTRAINT `sittings_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `page_versions` ADD CONSTRAINT `page_versions_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sittings` ADD CONSTRAINT `sittings_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sittings` ADD CONSTRAINT `sittings_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `page_versions_page` ON `page_versions` (`page_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `sittings_page` ON `sittings` (`page_id`,`seen_at`);