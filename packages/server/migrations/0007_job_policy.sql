ALTER TABLE `jobs` ADD `policy` text DEFAULT 'documentary' NOT NULL;--> statement-breakpoint
UPDATE `jobs` SET `policy` = 'picture' WHERE `id` IN (SELECT `pictures`.`job_id` FROM `pictures` JOIN `surveys` ON `surveys`.`picture_id` = `pictures`.`id` WHERE json_extract(`surveys`.`settings`, '$.policy') = 'picture');
