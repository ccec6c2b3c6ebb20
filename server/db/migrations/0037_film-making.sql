ALTER TABLE `films` ADD `recipe` json;--> statement-breakpoint
ALTER TABLE `films` ADD `made` json;--> statement-breakpoint
ALTER TABLE `films` ADD `heard` json;--> statement-breakpoint
ALTER TABLE `films` ADD `out_of_step` json;--> statement-breakpoint
ALTER TABLE `films` ADD `wave` mediumtext;--> statement-breakpoint
ALTER TABLE `films` ADD `still_key` varchar(64);--> statement-breakpoint
ALTER TABLE `films` ADD `making_id` varchar(36);--> statement-breakpoint
CREATE OR REPLACE ALGORITHM = merge
SQL SECURITY invoker
VIEW `held` AS (select `assets`.`id`, `assets`.`kind`, `assets`.`identity`, `assets`.`width_px`, `assets`.`height_px`, `assets`.`stem`, `assets`.`extension`, `assets`.`folder`, `assets`.`label`, `assets`.`drafted`, `assets`.`folded_into`, `assets`.`original_name`, `assets`.`title`, `assets`.`creator`, `assets`.`licence`, `assets`.`alt_state`, `assets`.`source`, `assets`.`last_day`, `assets`.`consent`, `assets`.`is_claimed`, `assets`.`search`, `assets`.`seen_by`, `assets`.`version`, `assets`.`created_at`, `assets`.`created_by`, `assets`.`deleted_at`, `pictures`.`sha256`, `pictures`.`format`, `pictures`.`bytes`, `pictures`.`alpha`, `pictures`.`animated`, `pictures`.`conditions`, `pictures`.`trim`, `pictures`.`prep`, `embeds`.`embed`, `documents`.`sha256` as `document_sha256`, `documents`.`format` as `document_format`, `documents`.`bytes` as `document_bytes`, `documents`.`pages`, `films`.`sha256` as `film_sha256`, `films`.`film`, `films`.`captions`, `films`.`recipe`, `films`.`made`, `films`.`out_of_step` from `assets` inner join `pictures` on `pictures`.`asset_id` = `assets`.`id` left join `embeds` on `embeds`.`asset_id` = `assets`.`id` left join `documents` on `documents`.`asset_id` = `assets`.`id` left join `films` on `films`.`asset_id` = `assets`.`id`);