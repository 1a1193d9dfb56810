CREATE TABLE `pauses` (
	`scope` text PRIMARY KEY NOT NULL,
	`why` text NOT NULL,
	`since` text NOT NULL,
	`until` text NOT NULL,
	`tries` integer NOT NULL
);
