CREATE TABLE `message_choices` (
	`person_id` varchar(36) NOT NULL,
	`choices` json NOT NULL,
	`hook_secret` text,
	CONSTRAINT `message_choices_person_id` PRIMARY KEY(`person_id`)
);
--> statement-breakpoint
CREATE TABLE `messages` (
	`id` varchar(36) NOT NULL,
	`person_id` varchar(36) NOT NULL,
	`way` varchar(10) NOT NULL,
	`matter` varchar(10) NOT NULL,
	`key` varchar(160) NOT NULL,
	`notification` json NOT NULL,
	`at` datetime(3) NOT NULL,
	`state` varchar(10) NOT NULL,
	`due_at` datetime(3) NOT NULL,
	`sent_at` datetime(3),
	`tries` int NOT NULL DEFAULT 0,
	`batch` varchar(36),
	`lease_until` datetime(3),
	`words` varchar(500) NOT NULL DEFAULT '',
	CONSTRAINT `messages_id` PRIMARY KEY(`id`),
	CONSTRAINT `messages_key` UNIQUE(`person_id`,`way`,`key`)
);
--> statement-breakpoint
ALTER TABLE `message_choices` ADD CONSTRAINT `message_choices_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `messages` ADD CONSTRAINT `messages_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `messages_due` ON `messages` (`state`,`due_at`);