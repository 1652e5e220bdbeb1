CREATE TABLE `kept_donors` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`data` text NOT NULL,
	`kept_at` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `kept_donors_by_job` ON `kept_donors` (`job_id`);