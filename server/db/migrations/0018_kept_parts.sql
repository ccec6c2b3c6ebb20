CREATE TABLE `kept_parts` (
	`id` varchar(36) NOT NULL,
	`name` varchar(200) NOT NULL,
	`doc` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`updated_at` datetime(3) NOT NULL,
	`updated_by` varchar(36) NOT NULL,
	CONSTRAINT `kept_parts_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `page_parts` (
	`page_id` varchar(36) NOT NULL,
	`part_id` varchar(64) NOT NULL,
	CONSTRAINT `page_parts_page_id_part_id_pk` PRIMARY KEY(`page_id`,`part_id`)
);
--> statement-breakpoint
ALTER TABLE `page_parts` ADD CONSTRAINT `page_parts_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `page_parts_part` ON `page_parts` (`part_id`);