CREATE TABLE `standing_tells` (
	`picture_id` text NOT NULL,
	`key` text NOT NULL,
	`value` real NOT NULL,
	`at` text NOT NULL,
	PRIMARY KEY(`picture_id`, `key`),
	FOREIGN KEY (`picture_id`) REFERENCES `pictures`(`id`) ON UPDATE no action ON DELETE cascade
);
