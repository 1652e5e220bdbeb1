CREATE TABLE `deliveries` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`picture_id` text NOT NULL,
	`file_name` text NOT NULL,
	`sha256` text NOT NULL,
	`bytes` integer NOT NULL,
	`at` text NOT NULL,
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `deliveries_by_picture` ON `deliveries` (`picture_id`);