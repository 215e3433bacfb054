CREATE TABLE account (
  name VARCHAR(40) PRIMARY KEY,
  role VARCHAR(20) NOT NULL,
  password_hash VARCHAR(100) NOT NULL
);

CREATE TABLE project (
  id UUID PRIMARY KEY,
  project_key VARCHAR(40) NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  system_code VARCHAR(40) NOT NULL,
  system_definition VARCHAR(400) NOT NULL,
  basemap CHARACTER LARGE OBJECT
);

CREATE TABLE layer (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  name VARCHAR(120) NOT NULL,
  layer_schema CHARACTER LARGE OBJECT NOT NULL,
  decimals INT NOT NULL,
  revision BIGINT NOT NULL,
  feature_count INT NOT NULL,
  west DOUBLE PRECISION, south DOUBLE PRECISION, east DOUBLE PRECISION, north DOUBLE PRECISION,
  source VARCHAR(300) NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  made_by VARCHAR(40) NOT NULL,
  changed_at TIMESTAMP WITH TIME ZONE NOT NULL,
  UNIQUE (project_id, name)
);

CREATE TABLE ledger_entry (
  id UUID PRIMARY KEY,
  layer_id UUID NOT NULL REFERENCES layer,
  feature_id UUID,
  version BIGINT NOT NULL,
  at TIMESTAMP WITH TIME ZONE NOT NULL,
  person VARCHAR(40) NOT NULL,
  cause VARCHAR(20) NOT NULL,
  visit_id UUID,
  summary VARCHAR(300) NOT NULL,
  before_values CHARACTER LARGE OBJECT NOT NULL,
  after_values CHARACTER LARGE OBJECT NOT NULL
);
CREATE INDEX ix_ledger_feature ON ledger_entry (feature_id, version);
CREATE INDEX ix_ledger_layer ON ledger_entry (layer_id, at);

CREATE TABLE feature (
  id UUID PRIMARY KEY,
  layer_id UUID NOT NULL REFERENCES layer,
  geom GEOMETRY(GEOMETRY, 4326),
  attrs JSON NOT NULL,
  version BIGINT NOT NULL,
  changed_at TIMESTAMP WITH TIME ZONE NOT NULL,
  changed_by VARCHAR(40) NOT NULL,
  made_by_entry UUID NOT NULL,
  place_in_layer INT NOT NULL,
  removed BOOLEAN NOT NULL
);
CREATE INDEX ix_feature_layer ON feature (layer_id, place_in_layer);
CREATE SPATIAL INDEX ix_feature_geom ON feature (geom);

CREATE TABLE form (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  layer_id UUID NOT NULL REFERENCES layer,
  draft CHARACTER LARGE OBJECT NOT NULL,
  revision BIGINT NOT NULL,
  changed_at TIMESTAMP WITH TIME ZONE NOT NULL
);

CREATE TABLE edition (
  id UUID PRIMARY KEY,
  form_id UUID NOT NULL REFERENCES form,
  number INT NOT NULL,
  content CHARACTER LARGE OBJECT NOT NULL,
  layer_schema CHARACTER LARGE OBJECT NOT NULL,
  published_at TIMESTAMP WITH TIME ZONE NOT NULL,
  published_by VARCHAR(40) NOT NULL,
  UNIQUE (form_id, number)
);

CREATE TABLE round (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  layer_id UUID NOT NULL REFERENCES layer,
  form_id UUID NOT NULL REFERENCES form,
  name VARCHAR(120) NOT NULL,
  note VARCHAR(1000) NOT NULL,
  due DATE,
  person VARCHAR(40) NOT NULL REFERENCES account,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  made_by VARCHAR(40) NOT NULL
);

CREATE TABLE stop (
  id UUID PRIMARY KEY,
  round_id UUID NOT NULL REFERENCES round,
  feature_id UUID NOT NULL,
  place_in_round INT NOT NULL,
  state VARCHAR(20) NOT NULL,
  reason VARCHAR(300) NOT NULL,
  UNIQUE (round_id, feature_id)
);

CREATE TABLE hand_in (
  id UUID PRIMARY KEY,
  person VARCHAR(40) NOT NULL,
  device VARCHAR(80) NOT NULL,
  received_at TIMESTAMP WITH TIME ZONE NOT NULL,
  visits INT NOT NULL
);

CREATE TABLE visit (
  id UUID PRIMARY KEY,
  hand_in_id UUID NOT NULL REFERENCES hand_in,
  round_id UUID,
  form_id UUID,
  edition INT NOT NULL,
  layer_id UUID,
  feature_id UUID,
  new_feature BOOLEAN NOT NULL,
  person VARCHAR(40) NOT NULL,
  device VARCHAR(80) NOT NULL,
  started_at TIMESTAMP WITH TIME ZONE,
  ended_at TIMESTAMP WITH TIME ZONE,
  received_at TIMESTAMP WITH TIME ZONE NOT NULL,
  document CHARACTER LARGE OBJECT NOT NULL,
  document_hash VARCHAR(64) NOT NULL,
  findings CHARACTER LARGE OBJECT NOT NULL,
  state VARCHAR(20) NOT NULL,
  reason VARCHAR(1000) NOT NULL,
  decided_at TIMESTAMP WITH TIME ZONE,
  decided_by VARCHAR(40)
);
CREATE INDEX ix_visit_state ON visit (state, received_at);
CREATE INDEX ix_visit_feature ON visit (feature_id, ended_at);

CREATE TABLE visit_photo (
  id UUID PRIMARY KEY,
  visit_id UUID NOT NULL REFERENCES visit,
  question VARCHAR(63) NOT NULL,
  sha256 VARCHAR(64) NOT NULL,
  bytes BIGINT NOT NULL,
  geotag CHARACTER LARGE OBJECT NOT NULL,
  place_in_visit INT NOT NULL,
  received_at TIMESTAMP WITH TIME ZONE
);
CREATE INDEX ix_photo_visit ON visit_photo (visit_id);
