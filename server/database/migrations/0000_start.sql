CREATE TABLE `machines` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`summary` text DEFAULT '' NOT NULL,
	`brief` text NOT NULL,
	`brief_revision` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`sheet_id` text NOT NULL,
	`version_hash` text NOT NULL,
	`name` text NOT NULL,
	`schedule` text NOT NULL,
	`duration` real NOT NULL,
	`finished` integer NOT NULL,
	`conditions` integer NOT NULL,
	`created_at` integer NOT NULL,
	`data` blob NOT NULL,
	FOREIGN KEY (`sheet_id`) REFERENCES `sheets`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`version_hash`) REFERENCES `sheet_versions`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `runs_by_sheet` ON `runs` (`sheet_id`);--> statement-breakpoint
CREATE TABLE `sheet_versions` (
	`hash` text PRIMARY KEY NOT NULL,
	`content` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sheets` (
	`id` text PRIMARY KEY NOT NULL,
	`machine_id` text NOT NULL,
	`content` text NOT NULL,
	`revision` integer DEFAULT 1 NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sheets_by_machine` ON `sheets` (`machine_id`);