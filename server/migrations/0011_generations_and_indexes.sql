CREATE TABLE `generations` (
	`topic` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `keys_person` ON `keys` (`person`);--> statement-breakpoint
CREATE INDEX `links_person` ON `links` (`person`);--> statement-breakpoint
CREATE INDEX `members_person` ON `members` (`person`);--> statement-breakpoint
CREATE INDEX `own_sets_table` ON `own_sets` (`table_id`);--> statement-breakpoint
CREATE INDEX `handed_over_fill` ON `handed_over` (`fill_id`);--> statement-breakpoint
INSERT INTO generations VALUES ('rights', 0), ('published', 0);
--> statement-breakpoint
CREATE TRIGGER generation_folders_insert AFTER INSERT ON folders
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_folders_update AFTER UPDATE ON folders
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_folders_delete AFTER DELETE ON folders
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_grants_insert AFTER INSERT ON grants
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_grants_update AFTER UPDATE ON grants
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_grants_delete AFTER DELETE ON grants
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_members_insert AFTER INSERT ON members
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_members_update AFTER UPDATE ON members
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_members_delete AFTER DELETE ON members
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'rights'; END;
--> statement-breakpoint
CREATE TRIGGER generation_texts_update AFTER UPDATE ON texts WHEN old.published IS NOT new.published OR old.folder IS NOT new.folder OR old.binned_at IS NOT new.binned_at OR old.retired_at IS NOT new.retired_at OR old.kind IS NOT new.kind
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_texts_delete AFTER DELETE ON texts
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_versions_insert AFTER INSERT ON versions
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_versions_update AFTER UPDATE ON versions
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_houses_insert AFTER INSERT ON houses
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_houses_update AFTER UPDATE ON houses WHEN old.published IS NOT new.published
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
