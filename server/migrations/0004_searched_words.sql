ALTER TABLE `texts` DROP COLUMN `words`;--> statement-breakpoint
CREATE VIRTUAL TABLE `search` USING fts5(`title`, `subject`, `call`, `labels`, `body`, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
--> statement-breakpoint
INSERT INTO `search` (`search`, `rank`) VALUES ('rank', 'bm25(10.0, 5.0, 12.0, 2.0, 1.0)');
