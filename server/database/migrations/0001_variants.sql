ALTER TABLE `sheets` ADD `name` text DEFAULT 'First variant' NOT NULL;--> statement-breakpoint
ALTER TABLE `sheets` ADD `position` integer DEFAULT 0 NOT NULL;