ALTER TABLE `sheet_summaries` ADD `waiting` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
-- summaries are computed again: they count more than before
DELETE FROM `sheet_summaries`;
