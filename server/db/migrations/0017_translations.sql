CREATE TABLE `translations` (
	`page_id` varchar(36) NOT NULL,
	`original_id` varchar(36) NOT NULL,
	`base` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `translations_page_id` PRIMARY KEY(`page_id`)
);
--> statement-breakpoint
ALTER TABLE `translations` ADD CONSTRAINT `translations_page_id_pages_id_fk` FOREIGN KEY (`page_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `translations` ADD CONSTRAINT `translations_original_id_pages_id_fk` FOREIGN KEY (`original_id`) REFERENCES `pages`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `translations_original` ON `translations` (`original_id`);