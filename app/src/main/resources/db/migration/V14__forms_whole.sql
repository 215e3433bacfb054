-- a form may be begun before its layer
ALTER TABLE form ALTER COLUMN layer_id DROP NOT NULL;
ALTER TABLE form ADD COLUMN changed_by VARCHAR(40);
-- when a sound draft that nobody touches is published by itself
ALTER TABLE form ADD COLUMN publishes_at TIMESTAMP WITH TIME ZONE;
ALTER TABLE form ADD COLUMN retired_at TIMESTAMP WITH TIME ZONE;
ALTER TABLE form ADD COLUMN retired_by VARCHAR(40);
CREATE INDEX ix_form_publishes ON form (publishes_at);

-- reference pictures and documents of guidance
CREATE TABLE form_file (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  name VARCHAR(200) NOT NULL,
  media_type VARCHAR(100) NOT NULL,
  sha256 VARCHAR(64) NOT NULL,
  bytes BIGINT NOT NULL,
  content BINARY LARGE OBJECT NOT NULL,
  kept_at TIMESTAMP WITH TIME ZONE NOT NULL,
  kept_by VARCHAR(40) NOT NULL
);
CREATE INDEX ix_form_file_project ON form_file (project_id, sha256);

-- forms that a project keeps to begin others from
CREATE TABLE form_template (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  title VARCHAR(200) NOT NULL,
  content CHARACTER LARGE OBJECT NOT NULL,
  kept_at TIMESTAMP WITH TIME ZONE NOT NULL,
  kept_by VARCHAR(40) NOT NULL
);
