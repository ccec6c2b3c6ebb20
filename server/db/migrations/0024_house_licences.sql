CREATE TABLE `house_licences` (
	`id` varchar(24) NOT NULL,
	`name` varchar(120) NOT NULL,
	`short` varchar(60) NOT NULL,
	`address` text NOT NULL,
	`publish` boolean NOT NULL,
	`decision` boolean NOT NULL,
	`commercial` boolean NOT NULL,
	`educational_only` boolean NOT NULL,
	`only_in` char(3),
	`allows_derivatives` boolean NOT NULL,
	`owes_credit` varchar(5) NOT NULL,
	`keeps_notice` boolean NOT NULL,
	`say_changes` boolean NOT NULL,
	`share_alike` boolean NOT NULL,
	`title_in_credit` varchar(6) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `house_licences_id` PRIMARY KEY(`id`)
);
