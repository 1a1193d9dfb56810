ALTER TABLE `texts` DROP COLUMN `words`;--> statement-breakpoint
CREATE VIRTUAL TABLE `search` USING fts5(`title`, `subject`, `call`, `labels`, `body`, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
