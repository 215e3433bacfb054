-- in which units lengths are said, where the project's days begin, where its features are expected
ALTER TABLE project ADD COLUMN units VARCHAR(10) DEFAULT 'metric' NOT NULL;
ALTER TABLE project ADD COLUMN zone VARCHAR(60) DEFAULT 'UTC' NOT NULL;
ALTER TABLE project ADD COLUMN expected_area CHARACTER LARGE OBJECT;

-- who brought in what a device carried, as a file
ALTER TABLE hand_in ADD COLUMN brought_by VARCHAR(40);
