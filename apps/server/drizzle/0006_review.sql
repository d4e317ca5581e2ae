CREATE TABLE `comments` (
	`id` char(36) NOT NULL,
	`proof_id` char(36) NOT NULL,
	`person_id` char(36) NOT NULL,
	`answers` char(36),
	`x` double,
	`y` double,
	`words` text NOT NULL,
	`at` datetime(3) NOT NULL,
	`closed_by` char(36),
	`closed_at` datetime(3),
	CONSTRAINT `comments_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `rounds` (
	`id` char(36) NOT NULL,
	`run_id` char(36) NOT NULL,
	`number` int NOT NULL,
	`opened_by` char(36) NOT NULL,
	`opened_at` datetime(3) NOT NULL,
	`reason` varchar(500) NOT NULL DEFAULT '',
	`signed_by` char(36),
	`signed_at` datetime(3),
	`stood` json,
	CONSTRAINT `rounds_id` PRIMARY KEY(`id`),
	CONSTRAINT `rounds_number` UNIQUE(`run_id`,`number`)
);
--> statement-breakpoint
ALTER TABLE `decisions` ADD `round_id` char(36);--> statement-breakpoint
ALTER TABLE `comments` ADD CONSTRAINT `comments_proof_id_proofs_id_fk` FOREIGN KEY (`proof_id`) REFERENCES `proofs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `comments` ADD CONSTRAINT `comments_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `comments` ADD CONSTRAINT `comments_closed_by_people_id_fk` FOREIGN KEY (`closed_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rounds` ADD CONSTRAINT `rounds_run_id_runs_id_fk` FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rounds` ADD CONSTRAINT `rounds_opened_by_people_id_fk` FOREIGN KEY (`opened_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rounds` ADD CONSTRAINT `rounds_signed_by_people_id_fk` FOREIGN KEY (`signed_by`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `comments_proof` ON `comments` (`proof_id`,`at`);--> statement-breakpoint
ALTER TABLE `decisions` ADD CONSTRAINT `decisions_round_id_rounds_id_fk` FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON DELETE no action ON UPDATE no action;