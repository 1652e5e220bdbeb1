CREATE TABLE `changes` (
	`picture_id` text NOT NULL,
	`version` integer NOT NULL,
	`kind` text NOT NULL,
	`of` integer NOT NULL,
	`label` text NOT NULL,
	`deltas` text NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`picture_id`, `version`),
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`client` text NOT NULL,
	`due` text,
	`notes` text NOT NULL,
	`state` text NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `layers` (
	`id` text PRIMARY KEY NOT NULL,
	`picture_id` text NOT NULL,
	`data` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `layers_by_picture` ON `layers` (`picture_id`);--> statement-breakpoint
CREATE TABLE `pictures` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`name` text NOT NULL,
	`original` text NOT NULL,
	`format` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`channels` integer NOT NULL,
	`bits` integer NOT NULL,
	`ppi` real,
	`profile` text,
	`version` integer NOT NULL,
	`added_at` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `pictures_by_job` ON `pictures` (`job_id`);--> statement-breakpoint
CREATE TABLE `repairs` (
	`id` text PRIMARY KEY NOT NULL,
	`picture_id` text NOT NULL,
	`data` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `repairs_by_picture` ON `repairs` (`picture_id`);--> statement-breakpoint
CREATE TABLE `searches` (
	`id` text PRIMARY KEY NOT NULL,
	`map` text NOT NULL,
	`below` text NOT NULL,
	`finished_at` text NOT NULL
);
