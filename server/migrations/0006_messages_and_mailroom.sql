CREATE TABLE `at_hand` (
	`person` text NOT NULL,
	`text` text NOT NULL,
	`position` integer NOT NULL,
	PRIMARY KEY(`person`, `text`),
	FOREIGN KEY (`person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `workspace` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `do_not_write` (
	`address` text PRIMARY KEY NOT NULL,
	`because` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `deliveries` (
	`address` text NOT NULL,
	`letter` text NOT NULL,
	`at` text NOT NULL,
	`done_at` text,
	PRIMARY KEY(`address`, `letter`),
	FOREIGN KEY (`letter`) REFERENCES `letters`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `deliveries_at` ON `deliveries` (`address`,`at`);--> statement-breakpoint
CREATE TABLE `intentions` (
	`id` text PRIMARY KEY NOT NULL,
	`letter` text NOT NULL,
	`recipient` text NOT NULL,
	`what` text NOT NULL,
	`due` text NOT NULL,
	`done_at` text
);
--> statement-breakpoint
CREATE INDEX `intentions_due` ON `intentions` (`done_at`,`due`);--> statement-breakpoint
CREATE TABLE `counted` (
	`token` text PRIMARY KEY NOT NULL,
	`outgoing` text NOT NULL,
	`what` text NOT NULL,
	`url` text
);
--> statement-breakpoint
CREATE TABLE `counts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`outgoing` text NOT NULL,
	`what` text NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `counts_outgoing` ON `counts` (`outgoing`);--> statement-breakpoint
CREATE TABLE `mailings` (
	`id` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	`text` text NOT NULL,
	`title` text NOT NULL,
	`version` integer,
	`fill` text NOT NULL,
	`frozen` text NOT NULL,
	`house` text NOT NULL,
	`signature` text,
	`zone` text NOT NULL,
	`changes` text DEFAULT '{"parts":[],"reworded":[]}' NOT NULL,
	`answers` text DEFAULT '{}' NOT NULL,
	`differing` text DEFAULT '[]' NOT NULL,
	`state` text NOT NULL,
	`broken` text DEFAULT '[]' NOT NULL,
	`revision` integer DEFAULT 1 NOT NULL,
	`created_at` text NOT NULL,
	`started_at` text,
	`ended_at` text
);
--> statement-breakpoint
CREATE INDEX `mailings_person` ON `mailings` (`person`,`created_at`);--> statement-breakpoint
CREATE TABLE `outgoing` (
	`id` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	`fill` text,
	`mailing` text,
	`position` integer,
	`address` text NOT NULL,
	`name` text NOT NULL,
	`subject` text NOT NULL,
	`state` text NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	`due` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`claimed_by` text,
	`claimed_at` text,
	`envelope` text,
	`raw` blob,
	`message_id` text NOT NULL,
	`fields` text DEFAULT '{}' NOT NULL,
	`answers` text DEFAULT '{}' NOT NULL,
	`changes` text DEFAULT '{"parts":[],"reworded":[]}' NOT NULL,
	`record` text,
	`created_at` text NOT NULL,
	`gone_at` text
);
--> statement-breakpoint
CREATE INDEX `outgoing_due` ON `outgoing` (`state`,`due`);--> statement-breakpoint
CREATE INDEX `outgoing_person` ON `outgoing` (`person`,`state`);--> statement-breakpoint
CREATE INDEX `outgoing_message_id` ON `outgoing` (`message_id`);--> statement-breakpoint
CREATE UNIQUE INDEX `outgoing_mailing` ON `outgoing` (`mailing`,`address`);--> statement-breakpoint
CREATE INDEX `outgoing_position` ON `outgoing` (`mailing`,`position`);--> statement-breakpoint
ALTER TABLE `fills` ADD `offered` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `fills` ADD `confirmed` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `fills` ADD `changes` text DEFAULT '{"parts":[],"reworded":[]}' NOT NULL;--> statement-breakpoint
ALTER TABLE `fills` ADD `original` text;--> statement-breakpoint
ALTER TABLE `fills` ADD `letter` text;--> statement-breakpoint
ALTER TABLE `fills` ADD `reply_all` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `person` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `text` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `version` integer;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `address` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `name` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `answers` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `reworded` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `stitched` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `outgoing` text;--> statement-breakpoint
CREATE INDEX `handed_over_address` ON `handed_over` (`address`,`at`);--> statement-breakpoint
CREATE INDEX `handed_over_person` ON `handed_over` (`person`,`at`);--> statement-breakpoint
CREATE INDEX `handed_over_text` ON `handed_over` (`text`,`at`);--> statement-breakpoint
ALTER TABLE `letters` ADD `message_id` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `letters_message_id` ON `letters` (`message_id`);--> statement-breakpoint
ALTER TABLE `people` ADD `ways` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `table_rows` ADD `folded` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `tables` ADD `owner` text;--> statement-breakpoint
ALTER TABLE `tables` ADD `keep_until` text;--> statement-breakpoint
UPDATE `handed_over` SET
	`person` = coalesce((SELECT `person` FROM `fills` WHERE `fills`.`id` = `handed_over`.`fill_id`), ''),
	`text` = coalesce((SELECT `text` FROM `fills` WHERE `fills`.`id` = `handed_over`.`fill_id`), ''),
	`version` = (SELECT `version` FROM `fills` WHERE `fills`.`id` = `handed_over`.`fill_id`),
	`answers` = coalesce((SELECT `answers` FROM `fills` WHERE `fills`.`id` = `handed_over`.`fill_id`), '{}'),
	`address` = coalesce((SELECT lower(json_extract(`recipient`, '$.email')) FROM `fills` WHERE `fills`.`id` = `handed_over`.`fill_id`), '');
--> statement-breakpoint
INSERT OR IGNORE INTO `deliveries` (`address`, `letter`, `at`)
	SELECT `people`.`address`, `letters`.`id`, `letters`.`at` FROM `letters`
	JOIN `people` ON EXISTS (SELECT 1 FROM json_each(`letters`.`recipients`) WHERE lower(`value`) = `people`.`address`);
