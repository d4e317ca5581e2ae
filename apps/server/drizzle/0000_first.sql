CREATE TABLE `people` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(200) NOT NULL,
	`role` enum('lead','designer','reviewer') NOT NULL,
	`password_hash` varchar(255) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `people_id` PRIMARY KEY(`id`),
	CONSTRAINT `people_email` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `brand_colours` (
	`id` char(36) NOT NULL,
	`brand_id` char(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	`role` varchar(20) NOT NULL,
	`hex` varchar(7) NOT NULL,
	`never` boolean NOT NULL,
	`tolerance` double NOT NULL,
	`position` int NOT NULL,
	CONSTRAINT `brand_colours_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `brands` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`allowed_drift` double NOT NULL,
	`avoid` json NOT NULL,
	CONSTRAINT `brands_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `campaigns` (
	`id` char(36) NOT NULL,
	`brand_id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	CONSTRAINT `campaigns_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `formats` (
	`id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`width` int NOT NULL,
	`height` int NOT NULL,
	`position` int NOT NULL,
	CONSTRAINT `formats_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `house` (
	`id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `house_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `presses` (
	`id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`capabilities` json,
	`seconds_per_image` double,
	`seen_at` datetime(3),
	CONSTRAINT `presses_id` PRIMARY KEY(`id`),
	CONSTRAINT `presses_name` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `events` (
	`seq` bigint AUTO_INCREMENT NOT NULL,
	`kind` varchar(40) NOT NULL,
	`about` char(36),
	`who` char(36),
	`data` json NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `events_seq` PRIMARY KEY(`seq`)
);
--> statement-breakpoint
CREATE TABLE `fingerprints` (
	`sha256` char(64) NOT NULL,
	`measure` int NOT NULL,
	`summary` json NOT NULL,
	`vector` blob NOT NULL,
	CONSTRAINT `fingerprints_sha256_measure_pk` PRIMARY KEY(`sha256`,`measure`)
);
--> statement-breakpoint
CREATE TABLE `pictures` (
	`sha256` char(64) NOT NULL,
	`type` varchar(20) NOT NULL,
	`width` int NOT NULL,
	`height` int NOT NULL,
	`bytes` int NOT NULL,
	`working` char(64) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `pictures_sha256` PRIMARY KEY(`sha256`)
);
--> statement-breakpoint
CREATE TABLE `style_references` (
	`id` char(36) NOT NULL,
	`sha256` char(64) NOT NULL,
	`name` varchar(120) NOT NULL,
	`shelf` varchar(80) NOT NULL,
	`credit` varchar(200) NOT NULL,
	`licence` varchar(200) NOT NULL,
	`licence_ends` date,
	`state` enum('in use','rests','put away') NOT NULL,
	`grade` int,
	`revision` int NOT NULL DEFAULT 1,
	`added_by` char(36) NOT NULL,
	`added_at` datetime(3) NOT NULL,
	CONSTRAINT `style_references_id` PRIMARY KEY(`id`),
	CONSTRAINT `style_references_picture` UNIQUE(`sha256`),
	CONSTRAINT `style_references_grade` CHECK(`style_references`.`grade` between 0 and 9)
);
--> statement-breakpoint
CREATE TABLE `look_versions` (
	`look_id` char(36) NOT NULL,
	`version` int NOT NULL,
	`sources` json NOT NULL,
	`strength` int NOT NULL,
	`words` json NOT NULL,
	`avoid` json NOT NULL,
	`note` varchar(500) NOT NULL,
	`style` json NOT NULL,
	`target` json NOT NULL,
	`facets` json NOT NULL,
	`author` char(36) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `look_versions_look_id_version_pk` PRIMARY KEY(`look_id`,`version`)
);
--> statement-breakpoint
CREATE TABLE `looks` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`state` enum('in use','rests','put away') NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `looks_id` PRIMARY KEY(`id`),
	CONSTRAINT `looks_name` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `subjects` (
	`id` char(36) NOT NULL,
	`label` varchar(120) NOT NULL,
	`wording` varchar(500) NOT NULL,
	`avoid` json NOT NULL,
	`sha256` char(64),
	`state` enum('in use','rests','put away') NOT NULL,
	`revision` int NOT NULL DEFAULT 1,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `subjects_id` PRIMARY KEY(`id`),
	CONSTRAINT `subjects_label` UNIQUE(`label`)
);
--> statement-breakpoint
CREATE TABLE `template_versions` (
	`template_id` char(36) NOT NULL,
	`version` int NOT NULL,
	`text` text NOT NULL,
	`avoid` json NOT NULL,
	`slots` json NOT NULL,
	`author` char(36) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `template_versions_template_id_version_pk` PRIMARY KEY(`template_id`,`version`)
);
--> statement-breakpoint
CREATE TABLE `templates` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`state` enum('in use','rests','put away') NOT NULL,
	CONSTRAINT `templates_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `batches` (
	`id` char(36) NOT NULL,
	`run_id` char(36) NOT NULL,
	`number` int NOT NULL,
	`state` enum('waiting','running','paused','done','stopped') NOT NULL,
	`plan` json NOT NULL,
	`press_id` char(36) NOT NULL,
	`waiting_for` varchar(300),
	`frozen_at` datetime(3) NOT NULL,
	CONSTRAINT `batches_id` PRIMARY KEY(`id`),
	CONSTRAINT `batches_number` UNIQUE(`run_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE `cells` (
	`id` char(36) NOT NULL,
	`batch_id` char(36) NOT NULL,
	`cell_key` varchar(200) NOT NULL,
	`row_number` int NOT NULL,
	`column_number` int NOT NULL,
	`subject_id` char(36) NOT NULL,
	`subject_label` varchar(120) NOT NULL,
	`look_id` char(36) NOT NULL,
	`look_name` varchar(120) NOT NULL,
	`look_version` int NOT NULL,
	`final_text` varchar(4000) NOT NULL,
	`struck_out` boolean NOT NULL,
	CONSTRAINT `cells_id` PRIMARY KEY(`id`),
	CONSTRAINT `cells_key` UNIQUE(`batch_id`,`cell_key`)
);
--> statement-breakpoint
CREATE TABLE `proofs` (
	`id` char(36) NOT NULL,
	`take_id` char(36) NOT NULL,
	`generation` int NOT NULL,
	`sha256` char(64) NOT NULL,
	`pixel_hash` char(64) NOT NULL,
	`ticket_hash` char(64) NOT NULL,
	`drift` json NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `proofs_id` PRIMARY KEY(`id`),
	CONSTRAINT `proofs_take` UNIQUE(`take_id`,`generation`)
);
--> statement-breakpoint
CREATE TABLE `run_looks` (
	`run_id` char(36) NOT NULL,
	`look_id` char(36) NOT NULL,
	`version` int NOT NULL,
	`target` json NOT NULL,
	`facets` json NOT NULL,
	CONSTRAINT `run_looks_key` UNIQUE(`run_id`,`look_id`)
);
--> statement-breakpoint
CREATE TABLE `runs` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`started_by` char(36) NOT NULL,
	`started_at` datetime(3) NOT NULL,
	CONSTRAINT `runs_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `takes` (
	`id` char(36) NOT NULL,
	`cell_id` char(36) NOT NULL,
	`batch_id` char(36) NOT NULL,
	`take` int NOT NULL,
	`seed` double NOT NULL,
	`ticket` json NOT NULL,
	`ticket_hash` char(64) NOT NULL,
	`state` enum('waiting','painting','made','failed','cancelled') NOT NULL,
	`generation` int NOT NULL DEFAULT 0,
	`attempts` int NOT NULL DEFAULT 0,
	`lease_owner` varchar(60),
	`lease_ends` datetime(3),
	`not_before` datetime(3) NOT NULL,
	`problem` varchar(500),
	`started_at` datetime(3),
	`finished_at` datetime(3),
	CONSTRAINT `takes_id` PRIMARY KEY(`id`),
	CONSTRAINT `takes_number` UNIQUE(`cell_id`,`take`)
);
--> statement-breakpoint
CREATE TABLE `decisions` (
	`id` char(36) NOT NULL,
	`seq` bigint AUTO_INCREMENT NOT NULL,
	`proof_id` char(36) NOT NULL,
	`person_id` char(36) NOT NULL,
	`verdict` enum('keep','keepOnceMended','hold','drop'),
	`grade` int,
	`reasons` json NOT NULL,
	`note` varchar(1000) NOT NULL,
	`figures` json NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `decisions_id` PRIMARY KEY(`id`),
	CONSTRAINT `decisions_seq_unique` UNIQUE(`seq`)
);
--> statement-breakpoint
ALTER TABLE `brand_colours` ADD CONSTRAINT `brand_colours_brand_id_brands_id_fk` FOREIGN KEY (`brand_id`) REFERENCES `brands`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `campaigns` ADD CONSTRAINT `campaigns_brand_id_brands_id_fk` FOREIGN KEY (`brand_id`) REFERENCES `brands`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `fingerprints` ADD CONSTRAINT `fingerprints_sha256_pictures_sha256_fk` FOREIGN KEY (`sha256`) REFERENCES `pictures`(`sha256`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `style_references` ADD CONSTRAINT `style_references_sha256_pictures_sha256_fk` FOREIGN KEY (`sha256`) REFERENCES `pictures`(`sha256`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `style_references` ADD CONSTRAINT `style_references_added_by_people_id_fk` FOREIGN KEY (`added_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `look_versions` ADD CONSTRAINT `look_versions_look_id_looks_id_fk` FOREIGN KEY (`look_id`) REFERENCES `looks`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `look_versions` ADD CONSTRAINT `look_versions_author_people_id_fk` FOREIGN KEY (`author`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `subjects` ADD CONSTRAINT `subjects_sha256_pictures_sha256_fk` FOREIGN KEY (`sha256`) REFERENCES `pictures`(`sha256`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `template_versions` ADD CONSTRAINT `template_versions_template_id_templates_id_fk` FOREIGN KEY (`template_id`) REFERENCES `templates`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `template_versions` ADD CONSTRAINT `template_versions_author_people_id_fk` FOREIGN KEY (`author`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `batches` ADD CONSTRAINT `batches_run_id_runs_id_fk` FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `batches` ADD CONSTRAINT `batches_press_id_presses_id_fk` FOREIGN KEY (`press_id`) REFERENCES `presses`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `cells` ADD CONSTRAINT `cells_batch_id_batches_id_fk` FOREIGN KEY (`batch_id`) REFERENCES `batches`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `proofs` ADD CONSTRAINT `proofs_take_id_takes_id_fk` FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `proofs` ADD CONSTRAINT `proofs_sha256_pictures_sha256_fk` FOREIGN KEY (`sha256`) REFERENCES `pictures`(`sha256`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `run_looks` ADD CONSTRAINT `run_looks_run_id_runs_id_fk` FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `runs` ADD CONSTRAINT `runs_started_by_people_id_fk` FOREIGN KEY (`started_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `takes` ADD CONSTRAINT `takes_cell_id_cells_id_fk` FOREIGN KEY (`cell_id`) REFERENCES `cells`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `takes` ADD CONSTRAINT `takes_batch_id_batches_id_fk` FOREIGN KEY (`batch_id`) REFERENCES `batches`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `decisions` ADD CONSTRAINT `decisions_proof_id_proofs_id_fk` FOREIGN KEY (`proof_id`) REFERENCES `proofs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `decisions` ADD CONSTRAINT `decisions_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `events_about` ON `events` (`about`);--> statement-breakpoint
CREATE INDEX `style_references_shelf` ON `style_references` (`state`,`shelf`,`id`);--> statement-breakpoint
CREATE INDEX `batches_state` ON `batches` (`state`);--> statement-breakpoint
CREATE INDEX `takes_claim` ON `takes` (`state`,`not_before`);--> statement-breakpoint
CREATE INDEX `takes_batch` ON `takes` (`batch_id`,`state`);--> statement-breakpoint
CREATE INDEX `decisions_proof` ON `decisions` (`proof_id`,`seq`);