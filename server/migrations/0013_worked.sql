ALTER TABLE `handed_over` ADD `missing` integer;--> statement-breakpoint
ALTER TABLE `handed_over` ADD `worked` integer;