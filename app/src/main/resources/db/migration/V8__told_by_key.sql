-- What is told is kept as the key of its text and what is put into it, which is longer than the words were.
ALTER TABLE ledger_entry ALTER COLUMN summary SET DATA TYPE VARCHAR(4000);
ALTER TABLE visit ALTER COLUMN reason SET DATA TYPE VARCHAR(4000);
ALTER TABLE set_aside ALTER COLUMN reason SET DATA TYPE VARCHAR(4000);
ALTER TABLE layer ALTER COLUMN source SET DATA TYPE VARCHAR(4000);
