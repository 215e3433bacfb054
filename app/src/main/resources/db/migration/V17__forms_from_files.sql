-- What a form was begun from, so that devices on which the same file was opened know it again.
ALTER TABLE form ADD COLUMN from_file VARCHAR(64);
CREATE INDEX ix_form_from_file ON form (project_id, from_file);
