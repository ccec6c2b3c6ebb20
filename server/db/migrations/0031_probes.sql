CREATE TABLE `probes` (
	`target_id` varchar(36) NOT NULL,
	`address` varchar(2000) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `probes_target_id` PRIMARY KEY(`target_id`)
);
