CREATE TABLE `films` (
	`asset_id` varchar(36) NOT NULL,
	`sha256` char(64) NOT NULL,
	`film` json NOT NULL,
	CONSTRAINT `films_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
ALTER TABLE `films` ADD CONSTRAINT `films_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE OR REPLACE ALGORITHM = merge
SQL SECURITY invoker
VIEW `held` AS (select `assets`.`id`, `assets`.`kind`, `assets`.`identity`, `assets`.`width_px`, `assets`.`height_px`, `assets`.`stem`, `assets`.`extension`, `assets`.`folder`, `assets`.`label`, `assets`.`drafted`, `assets`.`folded_into`, `assets`.`original_name`, `assets`.`title`, `assets`.`creator`, `assets`.`licence`, `assets`.`alt_state`, `assets`.`source`, `assets`.`last_day`, `assets`.`consent`, `assets`.`is_claimed`, `assets`.`search`, `assets`.`seen_by`, `assets`.`version`, `assets`.`created_at`, `assets`.`created_by`, `assets`.`deleted_at`, `pictures`.`sha256`, `pictures`.`format`, `pictures`.`bytes`, `pictures`.`alpha`, `pictures`.`animated`, `pictures`.`conditions`, `pictures`.`trim`, `pictures`.`prep`, `embeds`.`embed`, `documents`.`sha256` as `document_sha256`, `documents`.`format` as `document_format`, `documents`.`bytes` as `document_bytes`, `documents`.`pages`, `films`.`sha256` as `film_sha256`, `films`.`film` from `assets` inner join `pictures` on `pictures`.`asset_id` = `assets`.`id` left join `embeds` on `embeds`.`asset_id` = `assets`.`id` left join `documents` on `documents`.`asset_id` = `assets`.`id` left join `films` on `films`.`asset_id` = `assets`.`id`);