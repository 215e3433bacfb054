-- how a layer is drawn, as core's look JSON; null for the plain look
ALTER TABLE layer ADD COLUMN look CHARACTER LARGE OBJECT;
ALTER TABLE layer ADD COLUMN look_revision BIGINT DEFAULT 0 NOT NULL;

-- the project's map: basemap, order of layers, on or off, short names, opacity
ALTER TABLE project ADD COLUMN map CHARACTER LARGE OBJECT;
ALTER TABLE project ADD COLUMN map_revision BIGINT DEFAULT 0 NOT NULL;

-- basemaps of picture tiles; the file lies in the data folder under its id
CREATE TABLE basemap (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  name VARCHAR(120) NOT NULL,
  grid CHARACTER LARGE OBJECT NOT NULL,
  ground VARCHAR(200) NOT NULL,
  notes CHARACTER LARGE OBJECT NOT NULL,
  bytes BIGINT NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  made_by VARCHAR(40) NOT NULL,
  UNIQUE (project_id, name)
);
