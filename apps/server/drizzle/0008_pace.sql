ALTER TABLE `presses` ADD `seconds_to_settle` double;--> statement-breakpoint
ALTER TABLE `presses` DROP COLUMN `seconds_per_bound`;