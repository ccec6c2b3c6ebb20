ALTER TABLE `cuts` MODIFY COLUMN `recipe` varchar(160) NOT NULL;--> statement-breakpoint
ALTER TABLE `assets` ADD `prep` json;