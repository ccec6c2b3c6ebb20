CREATE TABLE `public_files` (
	`tag` char(24) NOT NULL,
	`name` varchar(200) NOT NULL,
	`sha256` char(64) NOT NULL,
	`type` varchar(100) NOT NULL,
	`bytes` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`gone_at` datetime(3),
	CONSTRAINT `public_files_tag_name_pk` PRIMARY KEY(`tag`,`name`)
);
--> statement-breakpoint
CREATE TABLE `public_uses` (
	`delivery_id` char(36) NOT NULL,
	`tag` char(24) NOT NULL,
	`name` varchar(200) NOT NULL,
	CONSTRAINT `public_uses_delivery_id_tag_name_pk` PRIMARY KEY(`delivery_id`,`tag`,`name`)
);
--> statement-breakpoint
ALTER TABLE `public_uses` ADD CONSTRAINT `public_uses_delivery_id_deliveries_id_fk` FOREIGN KEY (`delivery_id`) REFERENCES `deliveries`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `public_files_hash` ON `public_files` (`sha256`);--> statement-breakpoint
CREATE INDEX `public_uses_file` ON `public_uses` (`tag`,`name`);