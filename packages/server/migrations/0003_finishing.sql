CREATE TABLE `finishing` (
	`id` text PRIMARY KEY NOT NULL,
	`picture_id` text NOT NULL,
	`entity` text NOT NULL,
	`data` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `finishing_by_picture` ON `finishing` (`picture_id`);