CREATE TABLE `fills` (
	`id` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`title` text NOT NULL,
	`frozen` text NOT NULL,
	`signature` text,
	`recipient` text NOT NULL,
	`answers` text NOT NULL,
	`state` text NOT NULL,
	`created_at` text NOT NULL,
	`updated_at` text NOT NULL,
	`binned_at` text
);
--> statement-breakpoint
CREATE INDEX `fills_updated` ON `fills` (`updated_at`);--> statement-breakpoint
CREATE TABLE `frozen` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`revision` integer NOT NULL,
	`digest` text NOT NULL,
	`document` text NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `frozen_name_digest` ON `frozen` (`name`,`digest`);--> statement-breakpoint
CREATE TABLE `handed_over` (
	`id` text PRIMARY KEY NOT NULL,
	`fill_id` text NOT NULL,
	`way` text NOT NULL,
	`subject` text NOT NULL,
	`recipients` text NOT NULL,
	`html` text NOT NULL,
	`plain` text NOT NULL,
	`at` text NOT NULL,
	FOREIGN KEY (`fill_id`) REFERENCES `fills`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `people` (
	`id` text PRIMARY KEY NOT NULL,
	`profile` text NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `table_rows` (
	`table_id` text NOT NULL,
	`position` integer NOT NULL,
	`cells` text NOT NULL,
	PRIMARY KEY(`table_id`, `position`),
	FOREIGN KEY (`table_id`) REFERENCES `tables`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `tables` (
	`id` text PRIMARY KEY NOT NULL,
	`use` text NOT NULL,
	`title` text NOT NULL,
	`columns` text NOT NULL,
	`updated_at` text NOT NULL,
	`binned_at` text
);
--> statement-breakpoint
CREATE TABLE `texts` (
	`name` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`title` text NOT NULL,
	`subject` text NOT NULL,
	`call` text,
	`locale` text,
	`words` text NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`updated_at` text NOT NULL,
	`binned_at` text
);
