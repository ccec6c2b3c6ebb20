CREATE TABLE `caption_tracks` (
	`asset_id` varchar(36) NOT NULL,
	`language` varchar(35) NOT NULL,
	`cues` json NOT NULL,
	`version` int NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	`updated_by` varchar(36) NOT NULL,
	CONSTRAINT `caption_tracks_asset_id_language_pk` PRIMARY KEY(`asset_id`,`language`)
);
--> statement-breakpoint
ALTER TABLE `films` ADD `captions` json;--> statement-breakpoint
ALTER TABLE `caption_tracks` ADD CONSTRAINT `caption_tracks_asset_id_films_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `films`(`asset_id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE OR REPLACE ALGORITHM = merge
SQL SECURITY invoker
VIEW `held` AS (select `assets`.`id`, `assets`.`kind`, `assets`.`identity`, `assets`.`width_px`, `assets`.`height_px`, `assets`.`stem`, `assets`.`extension`, `assets`.`folder`, `assets`.`label`, `assets`.`drafted`, `assets`.`folded_into`, `assets`.`original_name`, `assets`.`title`, `assets`.`creator`, `assets`.`licence`, `assets`.`alt_state`, `assets`.`source`, `assets`.`last_day`, `assets`.`consent`, `assets`.`is_claimed`, `assets`.`search`, `assets`.`seen_by`, `assets`.`version`, `assets`.`created_at`, `assets`.`created_by`, `assets`.`deleted_at`, `pictures`.`sha256`, `pictures`.`format`, `pictures`.`bytes`, `pictures`.`alpha`, `pictures`.`animated`, `pictures`.`conditions`, `pictures`.`trim`, `pictures`.`prep`, `embeds`.`embed`, `documents`.`sha256` as `document_sha256`, `documents`.`format` as `document_format`, `documents`.`bytes` as `document_bytes`, `documents`.`pages`, `films`.`sha256` as `film_sha256`, `films`.`film`, `films`.`captions` from `assets` inner join `pictures` on `pictures`.`asset_id` = `assets`.`id` left join `embeds` on `embeds`.`asset_id` = `assets`.`id` left join `documents` on `documents`.`asset_id` = `assets`.`id` left join `films` on `films`.`asset_id` = `assets`.`id`);