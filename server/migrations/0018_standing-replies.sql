CREATE TABLE `standing_decisions` (
	`person` text NOT NULL,
	`letter` text NOT NULL,
	`rule` text,
	`title` text NOT NULL,
	`what` text NOT NULL,
	`why` text NOT NULL,
	`address` text NOT NULL,
	`at` text NOT NULL,
	`day` text NOT NULL,
	`fill` text,
	`outgoing` text,
	PRIMARY KEY(`person`, `letter`)
);
--> statement-breakpoint
CREATE INDEX `standing_decisions_at` ON `standing_decisions` (`person`,`at`);--> statement-breakpoint
CREATE INDEX `standing_decisions_address` ON `standing_decisions` (`person`,`address`,`what`,`at`);--> statement-breakpoint
CREATE INDEX `standing_decisions_rule` ON `standing_decisions` (`rule`,`day`);--> statement-breakpoint
CREATE TABLE `standing_replies` (
	`id` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	`position` integer NOT NULL,
	`rule` text NOT NULL,
	`on_since` text,
	`why` text DEFAULT '' NOT NULL,
	`trial` text,
	`created_at` text NOT NULL,
	`binned_at` text
);
--> statement-breakpoint
CREATE INDEX `standing_replies_person` ON `standing_replies` (`person`,`position`);