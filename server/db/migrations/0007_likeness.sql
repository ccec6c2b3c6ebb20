CREATE TABLE `likeness_curves` (
	`sha256` char(64) NOT NULL,
	`recipe` varchar(160) NOT NULL,
	`width_px` int NOT NULL,
	`wanted` smallint NOT NULL,
	`curves` json NOT NULL,
	CONSTRAINT `likeness_curves_sha256_recipe_width_px_wanted_pk` PRIMARY KEY(`sha256`,`recipe`,`width_px`,`wanted`)
);
