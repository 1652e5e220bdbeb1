CREATE TABLE `findings` (
	`id` text PRIMARY KEY NOT NULL,
	`picture_id` text NOT NULL,
	`data` text NOT NULL,
	`dismissed` integer NOT NULL,
	`repair_id` text,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `findings_by_picture` ON `findings` (`picture_id`);--> statement-breakpoint
CREATE TABLE `surveys` (
	`picture_id` text PRIMARY KEY NOT NULL,
	`state` text NOT NULL,
	`settings` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
