CREATE TABLE `agreed_lines` (
	`text` text PRIMARY KEY NOT NULL,
	`pairs` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `texts` ADD `translation_of` text;
--> statement-breakpoint
UPDATE `texts` SET `translation_of` = json_extract(`document`, '$.attrs.front.translation_of');
