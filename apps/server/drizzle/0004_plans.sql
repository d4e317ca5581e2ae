CREATE TABLE `budgets` (
	`about` char(36) NOT NULL,
	`kind` enum('campaign','person') NOT NULL,
	`images` int NOT NULL,
	`set_by` char(36) NOT NULL,
	`set_at` datetime(3) NOT NULL,
	CONSTRAINT `budgets_about` PRIMARY KEY(`about`)
);
--> statement-breakpoint
CREATE TABLE `subject_list_items` (
	`list_id` char(36) NOT NULL,
	`subject_id` char(36) NOT NULL,
	`place` int NOT NULL,
	CONSTRAINT `subject_list_items_list_id_subject_id_pk` PRIMARY KEY(`list_id`,`subject_id`)
);
--> statement-breakpoint
CREATE TABLE `subject_lists` (
	`id` char(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `subject_lists_id` PRIMARY KEY(`id`),
	CONSTRAINT `subject_lists_name` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `look_versions` MODIFY COLUMN `target` json;--> statement-breakpoint
ALTER TABLE `proofs` MODIFY COLUMN `drift` json;--> statement-breakpoint
ALTER TABLE `run_looks` MODIFY COLUMN `target` json;--> statement-breakpoint
ALTER TABLE `decisions` MODIFY COLUMN `figures` json;--> statement-breakpoint
ALTER TABLE `subjects` ADD `colours` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `subjects` ADD `tags` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `subjects` ADD `meaning` varchar(300) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `batches` ADD `sheets` json;--> statement-breakpoint
ALTER TABLE `batches` ADD `claimed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `cells` ADD `format_id` char(36);--> statement-breakpoint
ALTER TABLE `cells` ADD `cell_values` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `cells` ADD `bind` json;--> statement-breakpoint
ALTER TABLE `proofs` ADD `likeness` double;--> statement-breakpoint
ALTER TABLE `runs` ADD `kind` varchar(20) DEFAULT 'set' NOT NULL;--> statement-breakpoint
ALTER TABLE `runs` ADD `campaign_id` char(36);--> statement-breakpoint
ALTER TABLE `subject_list_items` ADD CONSTRAINT `subject_list_items_list_id_subject_lists_id_fk` FOREIGN KEY (`list_id`) REFERENCES `subject_lists`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `subject_list_items` ADD CONSTRAINT `subject_list_items_subject_id_subjects_id_fk` FOREIGN KEY (`subject_id`) REFERENCES `subjects`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `runs` ADD CONSTRAINT `runs_campaign_id_campaigns_id_fk` FOREIGN KEY (`campaign_id`) REFERENCES `campaigns`(`id`) ON DELETE no action ON UPDATE no action;