ALTER TABLE `assets` ADD `source` varchar(300) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `assets` ADD `last_day` char(10) DEFAULT '9999-12-31' NOT NULL;--> statement-breakpoint
ALTER TABLE `assets` ADD `consent` varchar(12) DEFAULT 'unsaid' NOT NULL;--> statement-breakpoint
ALTER TABLE `assets` ADD `is_claimed` boolean DEFAULT false NOT NULL;--> statement-breakpoint
-- What stands in labels already.
UPDATE `assets` SET
	`source` = LEFT(IFNULL(JSON_VALUE(`label`, '$.source'), ''), 300),
	`consent` = IFNULL(JSON_VALUE(`label`, '$.terms.consent'), 'unsaid'),
	`last_day` = LEAST(
		IFNULL(NULLIF(JSON_VALUE(`label`, '$.terms.ends'), ''), '9999-12-31'),
		IFNULL(NULLIF(JSON_VALUE(`label`, '$.terms.shownUntil'), ''), '9999-12-31')),
	`is_claimed` = JSON_CONTAINS(`drafted`, '"licence"');--> statement-breakpoint
CREATE INDEX `assets_standing_last_day` ON `assets` (`deleted_at`,`folded_into`,`last_day`,`id`,`licence`,`consent`,`is_claimed`);--> statement-breakpoint
CREATE OR REPLACE ALGORITHM = merge
SQL SECURITY invoker
VIEW `held` AS (select `assets`.`id`, `assets`.`kind`, `assets`.`identity`, `assets`.`width_px`, `assets`.`height_px`, `assets`.`stem`, `assets`.`extension`, `assets`.`folder`, `assets`.`label`, `assets`.`drafted`, `assets`.`folded_into`, `assets`.`original_name`, `assets`.`title`, `assets`.`creator`, `assets`.`licence`, `assets`.`alt_state`, `assets`.`source`, `assets`.`last_day`, `assets`.`consent`, `assets`.`is_claimed`, `assets`.`search`, `assets`.`version`, `assets`.`created_at`, `assets`.`created_by`, `assets`.`deleted_at`, `pictures`.`sha256`, `pictures`.`format`, `pictures`.`bytes`, `pictures`.`alpha`, `pictures`.`animated`, `pictures`.`conditions`, `pictures`.`trim`, `pictures`.`prep`, `embeds`.`embed`, `documents`.`sha256` as `document_sha256`, `documents`.`format` as `document_format`, `documents`.`bytes` as `document_bytes`, `documents`.`pages` from `assets` inner join `pictures` on `pictures`.`asset_id` = `assets`.`id` left join `embeds` on `embeds`.`asset_id` = `assets`.`id` left join `documents` on `documents`.`asset_id` = `assets`.`id`);