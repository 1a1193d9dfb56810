CREATE INDEX `counted_outgoing` ON `counted` (`outgoing`);--> statement-breakpoint
CREATE TRIGGER generation_trials_insert AFTER INSERT ON trials
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_trials_update AFTER UPDATE ON trials
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
--> statement-breakpoint
CREATE TRIGGER generation_trials_delete AFTER DELETE ON trials
BEGIN UPDATE generations SET number = number + 1 WHERE topic = 'published'; END;
