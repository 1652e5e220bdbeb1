CREATE TABLE `proofs` (
	`picture_id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`data` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `recipes` (
	`id` text PRIMARY KEY NOT NULL,
	`data` text NOT NULL,
	`kept_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `swept_frames` (
	`picture_id` text NOT NULL,
	`frame` integer NOT NULL,
	`content` text NOT NULL,
	`state` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`picture_id`, `frame`),
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `work_times` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`picture_id` text NOT NULL,
	`kind` text NOT NULL,
	`seconds` real NOT NULL,
	`count` integer NOT NULL,
	`at` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `work_times_by_picture` ON `work_times` (`picture_id`);--> statement-breakpoint
ALTER TABLE `jobs` ADD `archived` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `deleted_at` text;