CREATE TABLE `purchases` (
	`id` varchar(36) NOT NULL,
	`comp_id` varchar(36) NOT NULL,
	`source_id` varchar(30) NOT NULL,
	`picture` varchar(300) NOT NULL,
	`offer` json NOT NULL,
	`amount` bigint NOT NULL,
	`currency` char(3) NOT NULL,
	`licensed_to` varchar(300) NOT NULL,
	`state` varchar(12) NOT NULL,
	`receipt` varchar(200) NOT NULL DEFAULT '',
	`file` varchar(2000) NOT NULL DEFAULT '',
	`original_id` varchar(36),
	`replaced_at` datetime(3),
	`pages` int NOT NULL DEFAULT 0,
	`created_by` varchar(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `purchases_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `purchases_comp` ON `purchases` (`comp_id`);--> statement-breakpoint
CREATE INDEX `purchases_person` ON `purchases` (`created_by`,`created_at`);--> statement-breakpoint
CREATE INDEX `purchases_state` ON `purchases` (`state`,`created_at`);