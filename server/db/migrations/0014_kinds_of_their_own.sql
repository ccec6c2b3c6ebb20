CREATE TABLE `documents` (
	`asset_id` varchar(36) NOT NULL,
	`sha256` char(64) NOT NULL,
	`format` varchar(10) NOT NULL,
	`bytes` bigint NOT NULL,
	`pages` int,
	CONSTRAINT `documents_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
CREATE TABLE `embeds` (
	`asset_id` varchar(36) NOT NULL,
	`embed` json NOT NULL,
	CONSTRAINT `embeds_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
CREATE TABLE `pictures` (
	`asset_id` varchar(36) NOT NULL,
	`sha256` char(64) NOT NULL,
	`format` varchar(10) NOT NULL,
	`bytes` bigint NOT NULL,
	`alpha` boolean NOT NULL,
	`animated` boolean NOT NULL,
	`conditions` json NOT NULL DEFAULT ('[]'),
	`trim` json,
	`prep` json,
	CONSTRAINT `pictures_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
ALTER TABLE `assets` ADD `kind` varchar(10) NOT NULL;--> statement-breakpoint
ALTER TABLE `assets` ADD `identity` char(64) NOT NULL;--> statement-breakpoint
-- What is held already: pictures by their file, embeds by what they embed.
UPDATE `assets` SET `kind` = IF(`embed_key` IS NULL, 'picture', 'embed'), `identity` = COALESCE(`embed_key`, `sha256`);
--> statement-breakpoint
-- An embed that was thrown away and put on the shelf anew was held twice: the one that stands there keeps the name.
UPDATE `assets` AS `older` JOIN `assets` AS `other` ON `other`.`embed_key` = `older`.`embed_key` AND `other`.`id` <> `older`.`id`
	AND ((`older`.`deleted_at` IS NOT NULL AND `other`.`deleted_at` IS NULL)
		OR ((`older`.`deleted_at` IS NULL) = (`other`.`deleted_at` IS NULL) AND `other`.`id` > `older`.`id`))
	SET `older`.`identity` = `older`.`sha256`;
--> statement-breakpoint
INSERT INTO `pictures` (`asset_id`, `sha256`, `format`, `bytes`, `alpha`, `animated`, `conditions`, `trim`, `prep`)
	SELECT `id`, `sha256`, `format`, `bytes`, `alpha`, `animated`, IF(`embed_key` IS NULL, `conditions`, '[]'), `trim`, `prep` FROM `assets`;
--> statement-breakpoint
INSERT INTO `embeds` (`asset_id`, `embed`) SELECT `id`, `embed` FROM `assets` WHERE `embed_key` IS NOT NULL AND `embed` IS NOT NULL;
--> statement-breakpoint
-- Posters are no pieces that could be taken for another.
DELETE `looks` FROM `looks` JOIN `assets` ON `assets`.`id` = `looks`.`asset_id` WHERE `assets`.`kind` = 'embed';
--> statement-breakpoint
ALTER TABLE `assets` DROP INDEX `assets_sha256`;--> statement-breakpoint
DROP INDEX `assets_embed` ON `assets`;--> statement-breakpoint
ALTER TABLE `assets` ADD CONSTRAINT `assets_identity` UNIQUE(`identity`);--> statement-breakpoint
ALTER TABLE `documents` ADD CONSTRAINT `documents_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `embeds` ADD CONSTRAINT `embeds_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pictures` ADD CONSTRAINT `pictures_asset_id_assets_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `assets`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `pictures_sha256` ON `pictures` (`sha256`);--> statement-breakpoint
CREATE INDEX `assets_standing_kind` ON `assets` (`deleted_at`,`folded_into`,`kind`,`created_at`);--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `sha256`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `format`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `bytes`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `alpha`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `animated`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `conditions`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `trim`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `prep`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `embed`;--> statement-breakpoint
ALTER TABLE `assets` DROP COLUMN `embed_key`;--> statement-breakpoint
CREATE ALGORITHM = merge
SQL SECURITY invoker
VIEW `held` AS (select `assets`.`id`, `assets`.`kind`, `assets`.`identity`, `assets`.`width_px`, `assets`.`height_px`, `assets`.`stem`, `assets`.`extension`, `assets`.`folder`, `assets`.`label`, `assets`.`drafted`, `assets`.`folded_into`, `assets`.`original_name`, `assets`.`title`, `assets`.`maker`, `assets`.`licence`, `assets`.`alt_state`, `assets`.`search`, `assets`.`version`, `assets`.`created_at`, `assets`.`created_by`, `assets`.`deleted_at`, `pictures`.`sha256`, `pictures`.`format`, `pictures`.`bytes`, `pictures`.`alpha`, `pictures`.`animated`, `pictures`.`conditions`, `pictures`.`trim`, `pictures`.`prep`, `embeds`.`embed`, `documents`.`sha256` as `document_sha256`, `documents`.`format` as `document_format`, `documents`.`bytes` as `document_bytes`, `documents`.`pages` from `assets` inner join `pictures` on `pictures`.`asset_id` = `assets`.`id` left join `embeds` on `embeds`.`asset_id` = `assets`.`id` left join `documents` on `documents`.`asset_id` = `assets`.`id`);