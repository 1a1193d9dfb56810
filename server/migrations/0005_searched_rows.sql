CREATE TABLE `searched` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`state` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `searched_name` ON `searched` (`name`,`state`);
--> statement-breakpoint
CREATE TABLE `known_words` (
	`word` text PRIMARY KEY NOT NULL
);
