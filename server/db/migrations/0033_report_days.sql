CREATE TABLE `report_days` (
	`day` char(10) NOT NULL,
	`target_id` varchar(36) NOT NULL,
	`pages` int NOT NULL,
	`out` int NOT NULL,
	`sent` int NOT NULL,
	`stops` int NOT NULL,
	`mends` int NOT NULL,
	`words` int NOT NULL,
	`rights` int NOT NULL,
	`bytes` int,
	CONSTRAINT `report_days_day_target_id_pk` PRIMARY KEY(`day`,`target_id`)
);
