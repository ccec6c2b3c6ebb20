CREATE TABLE `errands_given` (
	`errand_id` varchar(100) NOT NULL,
	`to_id` varchar(36) NOT NULL,
	`by_id` varchar(36) NOT NULL,
	`note` varchar(500) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `errands_given_errand_id` PRIMARY KEY(`errand_id`)
);
