CREATE TABLE `webhook_deliveries` (
	`id` text PRIMARY KEY NOT NULL,
	`webhook` text NOT NULL,
	`event` text NOT NULL,
	`body` text NOT NULL,
	`state` text NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`at` text NOT NULL,
	`due` text NOT NULL,
	FOREIGN KEY (`webhook`) REFERENCES `webhooks`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `webhook_deliveries_due` ON `webhook_deliveries` (`state`,`due`);--> statement-breakpoint
CREATE INDEX `webhook_deliveries_webhook` ON `webhook_deliveries` (`webhook`,`at`);--> statement-breakpoint
CREATE TABLE `webhooks` (
	`id` text PRIMARY KEY NOT NULL,
	`url` text NOT NULL,
	`secret` text NOT NULL,
	`events` text NOT NULL,
	`who` text NOT NULL,
	`who_name` text NOT NULL,
	`created_at` text NOT NULL,
	`handed` integer NOT NULL,
	`counted` integer NOT NULL
);
