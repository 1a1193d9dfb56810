CREATE TABLE `trials` (
	`id` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`arms` text NOT NULL,
	`outcome` text NOT NULL,
	`matters` real NOT NULL,
	`started_at` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`ended_at` text,
	`ended_because` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `trials_running` ON `trials` (`text`) WHERE "trials"."ended_at" is null;--> statement-breakpoint
ALTER TABLE `fills` ADD `trial` text;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `trial` text;--> statement-breakpoint
CREATE INDEX `handed_over_trial` ON `handed_over` (`trial`) WHERE "handed_over"."trial" is not null;--> statement-breakpoint
ALTER TABLE `mailings` ADD `trial` text;--> statement-breakpoint
ALTER TABLE `mailings` ADD `arms` text DEFAULT '[]' NOT NULL;