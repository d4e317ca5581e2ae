ALTER TABLE `presses` ADD `url` varchar(300);--> statement-breakpoint
ALTER TABLE `presses` ADD `sealed_token` varchar(600);--> statement-breakpoint
ALTER TABLE `presses` ADD `at_once` int;--> statement-breakpoint
ALTER TABLE `presses` ADD `price` double;--> statement-breakpoint
ALTER TABLE `presses` ADD `in_use` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `presses` ADD `shares` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `presses` ADD `seconds_per_bound` double;--> statement-breakpoint
ALTER TABLE `presses` ADD `fault` varchar(300);--> statement-breakpoint
ALTER TABLE `presses` ADD `faults` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `presses` ADD `rests_until` datetime(3);--> statement-breakpoint
ALTER TABLE `look_ranges` ADD `setting` varchar(120) DEFAULT 'strength' NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD `press_id` char(36);--> statement-breakpoint
ALTER TABLE `takes` ADD `not_at` char(36);--> statement-breakpoint
UPDATE `takes` JOIN `presses` ON `presses`.`id` = json_value(`takes`.`ticket`, '$.press.id') SET `takes`.`press_id` = `presses`.`id`;--> statement-breakpoint
ALTER TABLE `takes` ADD CONSTRAINT `takes_press_id_presses_id_fk` FOREIGN KEY (`press_id`) REFERENCES `presses`(`id`) ON DELETE no action ON UPDATE no action;