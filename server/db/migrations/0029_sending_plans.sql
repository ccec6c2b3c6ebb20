CREATE TABLE `sending_plans` (
	`page_id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`start_at` datetime(3),
	`end_at` datetime(3),
	`state` varchar(10) NOT NULL,
	`delivery_id` char(36) NOT NULL,
	`words` varchar(500) NOT NULL DEFAULT '',
	CONSTRAINT `sending_plans_page_id` PRIMARY KEY(`page_id`)
);
--> statement-breakpoint
ALTER TABLE `sending_plans` ADD CONSTRAINT `sending_plans_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `sending_plans_start` ON `sending_plans` (`state`,`start_at`);--> statement-breakpoint
CREATE INDEX `sending_plans_end` ON `sending_plans` (`state`,`end_at`);