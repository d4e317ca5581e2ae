CREATE TABLE `asks` (
	`id` char(36) NOT NULL,
	`root_id` char(36) NOT NULL,
	`proof_id` char(36) NOT NULL,
	`take_id` char(36) NOT NULL,
	`person_id` char(36) NOT NULL,
	`words` varchar(500) NOT NULL,
	`changes` json NOT NULL,
	`left_over` json NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `asks_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `campaigns` ADD `ends` varchar(10);--> statement-breakpoint
ALTER TABLE `campaigns` ADD `hero` char(36);--> statement-breakpoint
ALTER TABLE `campaigns` ADD `hero_by` char(36);--> statement-breakpoint
ALTER TABLE `pictures` ADD `pixel_hash` char(64);--> statement-breakpoint
ALTER TABLE `pictures` ADD `lettering` json;--> statement-breakpoint
ALTER TABLE `takes` ADD `parent_proof` char(36);--> statement-breakpoint
ALTER TABLE `takes` ADD `kin` varchar(20);--> statement-breakpoint
ALTER TABLE `asks` ADD CONSTRAINT `asks_root_id_proofs_id_fk` FOREIGN KEY (`root_id`) REFERENCES `proofs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asks` ADD CONSTRAINT `asks_proof_id_proofs_id_fk` FOREIGN KEY (`proof_id`) REFERENCES `proofs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asks` ADD CONSTRAINT `asks_take_id_takes_id_fk` FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asks` ADD CONSTRAINT `asks_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `asks_root` ON `asks` (`root_id`,`at`);--> statement-breakpoint
CREATE INDEX `pictures_working` ON `pictures` (`working`);--> statement-breakpoint
CREATE INDEX `proofs_pixels` ON `proofs` (`pixel_hash`);--> statement-breakpoint
CREATE INDEX `proofs_ticket` ON `proofs` (`ticket_hash`);--> statement-breakpoint
CREATE INDEX `takes_parent` ON `takes` (`parent_proof`);