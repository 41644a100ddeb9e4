CREATE TABLE `revisions` (
	`id` text PRIMARY KEY NOT NULL,
	`sheet_id` text NOT NULL,
	`version_hash` text NOT NULL,
	`name` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`sheet_id`) REFERENCES `sheets`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`version_hash`) REFERENCES `sheet_versions`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `revisions_by_sheet` ON `revisions` (`sheet_id`);