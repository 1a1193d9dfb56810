CREATE TABLE `series_runs` (
	`id` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	`text` text NOT NULL,
	`title` text NOT NULL,
	`version` integer,
	`frozen` text NOT NULL,
	`house` text NOT NULL,
	`signature` text,
	`zone` text NOT NULL,
	`on_answer` text NOT NULL,
	`address` text NOT NULL,
	`name` text NOT NULL,
	`recipient` text NOT NULL,
	`answers` text NOT NULL,
	`state` text NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	`started_at` text NOT NULL,
	`ended_at` text
);
--> statement-breakpoint
CREATE INDEX `series_runs_person` ON `series_runs` (`person`,`state`);--> statement-breakpoint
CREATE INDEX `series_runs_address` ON `series_runs` (`address`);--> statement-breakpoint
CREATE INDEX `series_runs_state` ON `series_runs` (`state`);--> statement-breakpoint
CREATE TABLE `series_steps` (
	`run` text NOT NULL,
	`position` integer NOT NULL,
	`text` text NOT NULL,
	`title` text NOT NULL,
	`look` integer NOT NULL,
	`fill` text NOT NULL,
	`state` text NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	`due` text,
	`moved` integer DEFAULT false NOT NULL,
	`looked` integer DEFAULT false NOT NULL,
	`outgoing` text,
	`at` text,
	PRIMARY KEY(`run`, `position`),
	FOREIGN KEY (`run`) REFERENCES `series_runs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `series_steps_due` ON `series_steps` (`state`,`due`);--> statement-breakpoint
CREATE INDEX `series_steps_outgoing` ON `series_steps` (`outgoing`);--> statement-breakpoint
CREATE INDEX `series_steps_fill` ON `series_steps` (`fill`);--> statement-breakpoint
ALTER TABLE `fills` ADD `series` text;--> statement-breakpoint
CREATE INDEX `outgoing_address` ON `outgoing` (`address`,`gone_at`);