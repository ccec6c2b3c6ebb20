ALTER TABLE `people` ADD `password_at` datetime(3);--> statement-breakpoint
ALTER TABLE `people` ADD `left_at` datetime(3);