CREATE TABLE `sheet_summaries` (
	`sheet_id` text PRIMARY KEY NOT NULL,
	`revision` integer NOT NULL,
	`brief_revision` integer NOT NULL,
	`content_hash` text NOT NULL,
	`components` integer NOT NULL,
	`errors` integer NOT NULL,
	`incomplete` integer NOT NULL,
	`warnings` integer NOT NULL,
	`sized` integer NOT NULL,
	`agreeing` integer NOT NULL,
	`thumbnail` text NOT NULL,
	FOREIGN KEY (`sheet_id`) REFERENCES `sheets`(`id`) ON UPDATE no action ON DELETE cascade
);
