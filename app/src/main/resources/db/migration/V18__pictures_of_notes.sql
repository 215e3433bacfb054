-- Notes of rounds and stops have pictures: ids of files that travel with the round, with spaces between them.
ALTER TABLE round ADD COLUMN pictures VARCHAR(300) DEFAULT '' NOT NULL;
ALTER TABLE stop ADD COLUMN pictures VARCHAR(300) DEFAULT '' NOT NULL;
