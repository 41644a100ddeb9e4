ALTER TABLE `machines` ADD `brief_save_id` text;--> statement-breakpoint
ALTER TABLE `sheets` ADD `save_id` text;