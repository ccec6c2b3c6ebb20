ALTER TABLE `cuts` MODIFY COLUMN `recipe` varchar(255) CHARACTER SET ascii COLLATE ascii_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `likeness_curves` MODIFY COLUMN `recipe` varchar(255) CHARACTER SET ascii COLLATE ascii_bin NOT NULL;
