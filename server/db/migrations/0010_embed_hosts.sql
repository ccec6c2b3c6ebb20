CREATE TABLE `embed_hosts` (
	`id` varchar(36) NOT NULL,
	`entries` json NOT NULL,
	`decisions` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `embed_hosts_id` PRIMARY KEY(`id`)
);
