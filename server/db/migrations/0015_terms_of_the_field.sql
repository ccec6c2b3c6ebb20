RENAME TABLE `takings` TO `import_items`, `looks` TO `perceptual_hashes`;--> statement-breakpoint
ALTER TABLE `import_items` DROP FOREIGN KEY `takings_job_id_jobs_id_fk`;--> statement-breakpoint
ALTER TABLE `perceptual_hashes` DROP FOREIGN KEY `looks_asset_id_assets_id_fk`;--> statement-breakpoint
ALTER TABLE `import_items` ADD CONSTRAINT `import_items_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `perceptual_hashes` ADD CONSTRAINT `perceptual_hashes_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `assets` RENAME COLUMN `maker` TO `creator`;--> statement-breakpoint
-- Fields of labels that are drafts are named as the fields are.
UPDATE `assets` SET `drafted` = REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(`drafted`,
	'"maker"', '"creator"'), '"notice"', '"copyrightNotice"'), '"description"', '"extendedDescription"'),
	'"taken"', '"dateCreated"'), '"words"', '"keywords"');
--> statement-breakpoint
CREATE OR REPLACE ALGORITHM = merge
SQL SECURITY invoker
VIEW `held` AS (select `assets`.`id`, `assets`.`kind`, `assets`.`identity`, `assets`.`width_px`, `assets`.`height_px`, `assets`.`stem`, `assets`.`extension`, `assets`.`folder`, `assets`.`label`, `assets`.`drafted`, `assets`.`folded_into`, `assets`.`original_name`, `assets`.`title`, `assets`.`creator`, `assets`.`licence`, `assets`.`alt_state`, `assets`.`search`, `assets`.`version`, `assets`.`created_at`, `assets`.`created_by`, `assets`.`deleted_at`, `pictures`.`sha256`, `pictures`.`format`, `pictures`.`bytes`, `pictures`.`alpha`, `pictures`.`animated`, `pictures`.`conditions`, `pictures`.`trim`, `pictures`.`prep`, `embeds`.`embed`, `documents`.`sha256` as `document_sha256`, `documents`.`format` as `document_format`, `documents`.`bytes` as `document_bytes`, `documents`.`pages` from `assets` inner join `pictures` on `pictures`.`asset_id` = `assets`.`id` left join `embeds` on `embeds`.`asset_id` = `assets`.`id` left join `documents` on `documents`.`asset_id` = `assets`.`id`);