CREATE TABLE `code_imports` (
	`id` char(36) NOT NULL,
	`file` varchar(200) NOT NULL,
	`merged` json NOT NULL,
	`who` char(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `code_imports_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `style_codes` (
	`id` char(36) NOT NULL,
	`kind` enum('own','foreign') NOT NULL,
	`text` varchar(200) character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`press` varchar(80) character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`name` varchar(120) NOT NULL,
	`grade` int,
	`note` varchar(1000) NOT NULL,
	`tags` json NOT NULL,
	`shelf` varchar(80) NOT NULL,
	`state` enum('in use','rests','put away') NOT NULL,
	`revision` int NOT NULL DEFAULT 1,
	`import_id` char(36),
	`measure` int,
	`summary` json,
	`added_by` char(36) NOT NULL,
	`added_at` datetime(3) NOT NULL,
	CONSTRAINT `style_codes_id` PRIMARY KEY(`id`),
	CONSTRAINT `style_codes_text` UNIQUE(`press`,`text`),
	CONSTRAINT `style_codes_grade` CHECK(`style_codes`.`grade` between 0 and 9)
);
--> statement-breakpoint
ALTER TABLE `code_imports` ADD CONSTRAINT `code_imports_who_people_id_fk` FOREIGN KEY (`who`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `style_codes` ADD CONSTRAINT `style_codes_import_id_code_imports_id_fk` FOREIGN KEY (`import_id`) REFERENCES `code_imports`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `style_codes` ADD CONSTRAINT `style_codes_added_by_people_id_fk` FOREIGN KEY (`added_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `style_codes_state` ON `style_codes` (`state`,`id`);--> statement-breakpoint
CREATE INDEX `style_codes_measure` ON `style_codes` (`kind`,`measure`);