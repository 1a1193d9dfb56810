CREATE TABLE `attempts` (
	`key` text PRIMARY KEY NOT NULL,
	`count` integer NOT NULL,
	`last_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `audit` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`act` text NOT NULL,
	`what` text NOT NULL,
	`target` text NOT NULL,
	`words` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `audit_at` ON `audit` (`at`);--> statement-breakpoint
CREATE INDEX `audit_target` ON `audit` (`what`,`target`);--> statement-breakpoint
CREATE TABLE `checkpoints` (
	`id` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`frozen` text NOT NULL,
	`revision` integer NOT NULL,
	`reason` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `checkpoints_text` ON `checkpoints` (`text`,`at`);--> statement-breakpoint
CREATE TABLE `folders` (
	`id` text PRIMARY KEY NOT NULL,
	`parent` text,
	`title` text NOT NULL,
	`position` integer DEFAULT 0 NOT NULL,
	`owner` text,
	`inherits` integer DEFAULT true NOT NULL,
	`second_person` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE `grants` (
	`folder` text NOT NULL,
	`holder` text NOT NULL,
	`right` text NOT NULL,
	PRIMARY KEY(`folder`, `holder`),
	FOREIGN KEY (`folder`) REFERENCES `folders`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `groups` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `keys` (
	`id` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	`title` text NOT NULL,
	`digest` text NOT NULL,
	`start` text NOT NULL,
	`scopes` text NOT NULL,
	`created_at` text NOT NULL,
	`used_at` text,
	`ended_at` text,
	FOREIGN KEY (`person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `keys_digest_unique` ON `keys` (`digest`);--> statement-breakpoint
CREATE TABLE `links` (
	`digest` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	`what` text NOT NULL,
	`ends_at` text NOT NULL,
	FOREIGN KEY (`person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `members` (
	`group` text NOT NULL,
	`person` text NOT NULL,
	PRIMARY KEY(`group`, `person`),
	FOREIGN KEY (`group`) REFERENCES `groups`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `remarks` (
	`id` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`exact` text NOT NULL,
	`prefix` text NOT NULL,
	`suffix` text NOT NULL,
	`body` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`at` text NOT NULL,
	`answers` text DEFAULT '[]' NOT NULL,
	`settled_at` text,
	`settled_by` text
);
--> statement-breakpoint
CREATE INDEX `remarks_text` ON `remarks` (`text`);--> statement-breakpoint
CREATE TABLE `requests` (
	`id` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`frozen` text NOT NULL,
	`revision` integer NOT NULL,
	`note` text NOT NULL,
	`report` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`at` text NOT NULL,
	`state` text NOT NULL,
	`answered_by` text,
	`answered_at` text,
	`remark` text
);
--> statement-breakpoint
CREATE INDEX `requests_state` ON `requests` (`state`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`digest` text PRIMARY KEY NOT NULL,
	`id` text NOT NULL,
	`person` text NOT NULL,
	`agent` text NOT NULL,
	`created_at` text NOT NULL,
	`seen_at` text NOT NULL,
	`ends_at` text NOT NULL,
	FOREIGN KEY (`person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `sessions_person` ON `sessions` (`person`);--> statement-breakpoint
CREATE TABLE `timed` (
	`id` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`frozen` text NOT NULL,
	`revision` integer NOT NULL,
	`note` text NOT NULL,
	`who` text NOT NULL,
	`due` text NOT NULL,
	`state` text NOT NULL,
	`words` text
);
--> statement-breakpoint
CREATE INDEX `timed_due` ON `timed` (`state`,`due`);--> statement-breakpoint
CREATE TABLE `uses` (
	`text` text NOT NULL,
	`state` text NOT NULL,
	`what` text NOT NULL,
	`target` text NOT NULL,
	PRIMARY KEY(`text`, `state`, `what`, `target`)
);
--> statement-breakpoint
CREATE INDEX `uses_target` ON `uses` (`what`,`target`);--> statement-breakpoint
CREATE TABLE `versions` (
	`text` text NOT NULL,
	`number` integer NOT NULL,
	`frozen` text NOT NULL,
	`revision` integer NOT NULL,
	`note` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`at` text NOT NULL,
	`withdrawn_at` text,
	`withdrawn_by` text,
	`withdrawn_because` text,
	PRIMARY KEY(`text`, `number`)
);
--> statement-breakpoint
DROP INDEX `fills_updated`;--> statement-breakpoint
ALTER TABLE `fills` ADD `person` text DEFAULT 'me' NOT NULL;--> statement-breakpoint
ALTER TABLE `fills` ADD `version` integer;--> statement-breakpoint
CREATE INDEX `fills_person` ON `fills` (`person`,`updated_at`);--> statement-breakpoint
CREATE INDEX `fills_text` ON `fills` (`text`);--> statement-breakpoint
ALTER TABLE `assets` ADD `added_by` text;--> statement-breakpoint
ALTER TABLE `houses` ADD `published` integer;--> statement-breakpoint
ALTER TABLE `houses` ADD `published_revision` integer;--> statement-breakpoint
ALTER TABLE `houses` ADD `written_by` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `address` text;--> statement-breakpoint
ALTER TABLE `people` ADD `role` text DEFAULT 'administrator' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `password` text;--> statement-breakpoint
ALTER TABLE `people` ADD `created_at` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `ended_at` text;--> statement-breakpoint
CREATE UNIQUE INDEX `people_address_unique` ON `people` (`address`);--> statement-breakpoint
ALTER TABLE `texts` ADD `folder` text DEFAULT 'root' NOT NULL;--> statement-breakpoint
ALTER TABLE `texts` ADD `position` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `texts` ADD `tags` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `texts` ADD `made_by` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `owner` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `review_by` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `valid_from` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `valid_until` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `findings` text DEFAULT '[0,0,0]' NOT NULL;--> statement-breakpoint
ALTER TABLE `texts` ADD `published` integer;--> statement-breakpoint
ALTER TABLE `texts` ADD `published_revision` integer;--> statement-breakpoint
ALTER TABLE `texts` ADD `published_as` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `written_by` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `texts` ADD `retired_at` text;--> statement-breakpoint
ALTER TABLE `texts` ADD `replaced_by` text;--> statement-breakpoint
CREATE INDEX `texts_folder` ON `texts` (`folder`);--> statement-breakpoint
CREATE INDEX `texts_call` ON `texts` (`call`);--> statement-breakpoint
INSERT INTO `folders` (`id`, `parent`, `title`, `position`, `inherits`, `second_person`) VALUES ('root', NULL, 'Library', 0, 1, 0);
--> statement-breakpoint
INSERT INTO `grants` (`folder`, `holder`, `right`) VALUES ('root', 'everyone', 'fill'), ('root', 'authors', 'publish');
--> statement-breakpoint
CREATE TRIGGER `audit_never_changes` BEFORE UPDATE ON `audit` BEGIN SELECT RAISE(ABORT, 'the audit trail is never changed'); END;
--> statement-breakpoint
CREATE TRIGGER `audit_is_never_shortened` BEFORE DELETE ON `audit` BEGIN SELECT RAISE(ABORT, 'the audit trail is never changed'); END;
--> statement-breakpoint
CREATE TRIGGER `versions_keep_their_words` BEFORE UPDATE OF `text`, `number`, `frozen`, `note`, `who`, `at` ON `versions` BEGIN SELECT RAISE(ABORT, 'a version is never changed'); END;
--> statement-breakpoint
CREATE TRIGGER `frozen_never_changes` BEFORE UPDATE ON `frozen` BEGIN SELECT RAISE(ABORT, 'a frozen document is never changed'); END;
