CREATE TABLE `purged_names` (
	`name` text PRIMARY KEY NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `addresses` (
	`person` text NOT NULL,
	`address` text NOT NULL,
	`asked_at` text NOT NULL,
	`confirmed_by` text,
	`confirmed_at` text,
	PRIMARY KEY(`person`, `address`),
	FOREIGN KEY (`person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `addresses_address` ON `addresses` (`address`);--> statement-breakpoint
ALTER TABLE `texts` ADD `second_person` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `tables` ADD `folder` text;--> statement-breakpoint
ALTER TABLE `letters` ADD `from` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `letters` ADD `opening` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `letters` ADD `thread` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `letters` ADD `readable` integer;--> statement-breakpoint
CREATE INDEX `letters_sender` ON `letters` (`sender`,`at`);--> statement-breakpoint
CREATE INDEX `deliveries_letter` ON `deliveries` (`letter`);--> statement-breakpoint
INSERT INTO addresses (person, address, asked_at)
	SELECT id, lower(trim(json_extract(profile, '$.email'))), updated_at FROM people
	WHERE address IS NOT NULL AND lower(trim(json_extract(profile, '$.email'))) LIKE '%_@_%'
	AND lower(trim(json_extract(profile, '$.email'))) NOT IN (SELECT address FROM people WHERE address IS NOT NULL);--> statement-breakpoint
UPDATE tables SET folder = 'root' WHERE use = 'recipients' AND owner IS NULL;--> statement-breakpoint
INSERT OR IGNORE INTO purged_names (name, at)
	SELECT DISTINCT target, max(at) FROM audit WHERE act = 'purged' AND what = 'text'
	AND target NOT IN (SELECT name FROM texts) GROUP BY target;
