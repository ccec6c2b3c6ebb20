CREATE TABLE `inherited_pages` (
	`id` varchar(36) NOT NULL,
	`target_id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`state` varchar(10) NOT NULL,
	`source` varchar(2000) NOT NULL,
	`address` varchar(2000),
	`base` varchar(2000) NOT NULL,
	`html` mediumtext,
	`bytes` int unsigned,
	`encoding` varchar(40) NOT NULL DEFAULT '',
	`beside` json,
	`reading` json,
	`facts` json,
	`became` json,
	`page_id` char(36),
	`page_version` int unsigned,
	`words` varchar(500) NOT NULL DEFAULT '',
	`job_id` char(36) NOT NULL,
	CONSTRAINT `inherited_pages_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `inherited_at` ON `inherited_pages` (`at`);