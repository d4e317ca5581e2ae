CREATE TABLE `shelves` (
	`name` varchar(80) NOT NULL,
	`place` int NOT NULL,
	CONSTRAINT `shelves_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `treatments` (
	`id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`settings` json NOT NULL,
	`added_by` char(36) NOT NULL,
	`added_at` datetime(3) NOT NULL,
	CONSTRAINT `treatments_id` PRIMARY KEY(`id`),
	CONSTRAINT `treatments_name` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `look_ranges` (
	`id` char(36) NOT NULL,
	`look_id` char(36) NOT NULL,
	`version` int NOT NULL,
	`strength_from` int NOT NULL,
	`strength_to` int NOT NULL,
	`good_for` varchar(200) NOT NULL,
	`note` varchar(500) NOT NULL,
	`proofs` json NOT NULL,
	`withdrawn` boolean NOT NULL DEFAULT false,
	`author` char(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `look_ranges_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `word_styles` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`purpose` varchar(300) NOT NULL,
	`before_words` json NOT NULL,
	`after_words` json NOT NULL,
	`avoid` json NOT NULL,
	`by_default` boolean NOT NULL,
	`grade` int,
	`revision` int NOT NULL DEFAULT 1,
	`added_by` char(36) NOT NULL,
	`added_at` datetime(3) NOT NULL,
	CONSTRAINT `word_styles_id` PRIMARY KEY(`id`),
	CONSTRAINT `word_styles_name` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `fingerprints` ADD `palette` json NOT NULL DEFAULT '[]';--> statement-breakpoint
ALTER TABLE `fingerprints` ADD `vector_version` int NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE `style_references` ADD `tags` json NOT NULL DEFAULT '[]';--> statement-breakpoint
ALTER TABLE `style_references` ADD `style_words` json NOT NULL DEFAULT '[]';--> statement-breakpoint
ALTER TABLE `style_references` ADD `subject_words` varchar(300) NOT NULL DEFAULT '';--> statement-breakpoint
ALTER TABLE `style_references` ADD `place` double NOT NULL;--> statement-breakpoint
ALTER TABLE `style_references` ADD `parent_id` char(36);--> statement-breakpoint
ALTER TABLE `style_codes` ADD `vector` blob;--> statement-breakpoint
ALTER TABLE `style_codes` ADD `vector_version` int;--> statement-breakpoint
ALTER TABLE `look_versions` ADD `begun_from` json;--> statement-breakpoint
ALTER TABLE `treatments` ADD CONSTRAINT `treatments_added_by_people_id_fk` FOREIGN KEY (`added_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `look_ranges` ADD CONSTRAINT `look_ranges_look_id_looks_id_fk` FOREIGN KEY (`look_id`) REFERENCES `looks`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `look_ranges` ADD CONSTRAINT `look_ranges_author_people_id_fk` FOREIGN KEY (`author`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `word_styles` ADD CONSTRAINT `word_styles_added_by_people_id_fk` FOREIGN KEY (`added_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `style_references_parent` ON `style_references` (`parent_id`);--> statement-breakpoint
UPDATE `fingerprints` SET `palette` = JSON_EXTRACT(`summary`, '$.colour.palette');--> statement-breakpoint
UPDATE `style_references` SET `place` = -UNIX_TIMESTAMP(`added_at`);
