ALTER TABLE `deliveries` ADD `teaser` json;--> statement-breakpoint
ALTER TABLE `deliveries` ADD `found_bytes` int;