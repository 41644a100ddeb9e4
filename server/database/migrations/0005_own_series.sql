CREATE TABLE `own_series` (
	`name` text PRIMARY KEY NOT NULL,
	`content` text NOT NULL
);
