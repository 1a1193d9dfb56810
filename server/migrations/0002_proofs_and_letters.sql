CREATE TABLE `letters` (
	`id` text PRIMARY KEY NOT NULL,
	`sender` text NOT NULL,
	`recipients` text NOT NULL,
	`subject` text NOT NULL,
	`raw` blob NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `letters_at` ON `letters` (`at`);--> statement-breakpoint
CREATE TABLE `looked_at` (
	`text` text NOT NULL,
	`case` text NOT NULL,
	`digest` text NOT NULL,
	`who` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`text`, `case`, `digest`)
);
--> statement-breakpoint
CREATE TABLE `own_sets` (
	`text` text PRIMARY KEY NOT NULL,
	`table_id` text NOT NULL,
	FOREIGN KEY (`table_id`) REFERENCES `tables`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `set_aside` (
	`text` text NOT NULL,
	`fingerprint` text NOT NULL,
	`code` text NOT NULL,
	`message` text NOT NULL,
	`reason` text NOT NULL,
	`who` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`text`, `fingerprint`)
);
--> statement-breakpoint
ALTER TABLE `tables` ADD `revision` integer DEFAULT 1 NOT NULL;