CREATE TABLE `names_out` (
	`stem` varchar(80) NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `names_out_stem` PRIMARY KEY(`stem`)
);
--> statement-breakpoint
CREATE TABLE `run_steps` (
	`job_id` varchar(36) NOT NULL,
	`ordinal` int NOT NULL,
	`asset_id` varchar(36) NOT NULL,
	`row` json NOT NULL,
	`version` int NOT NULL,
	`state` varchar(10) NOT NULL,
	`sentence` varchar(500) NOT NULL DEFAULT '',
	`made_bytes` bigint,
	`ended_at` datetime(3),
	CONSTRAINT `run_steps_job_id_ordinal_pk` PRIMARY KEY(`job_id`,`ordinal`)
);
--> statement-breakpoint
CREATE INDEX `names_out_asset` ON `names_out` (`asset_id`);--> statement-breakpoint
CREATE INDEX `run_steps_asset` ON `run_steps` (`asset_id`);