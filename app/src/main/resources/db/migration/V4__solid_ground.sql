-- H2 2.4.240 can leave a store that nothing opens any more when it is killed while a spatial index is written,
-- and no query reads this one: places are found in the read models (docs/decisions/0018)
DROP INDEX ix_feature_geom;

-- whoever changes one of these has read it under its lock; the count tells when that was not so
ALTER TABLE project ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE layer ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE form ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE round ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE stop ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE hand_in ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE visit ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE visit_photo ADD COLUMN row_version BIGINT DEFAULT 0 NOT NULL;

-- the act that an entry takes back
ALTER TABLE ledger_entry ADD COLUMN takes_back UUID;
CREATE INDEX ix_ledger_visit ON ledger_entry (visit_id);
CREATE INDEX ix_visit_person ON visit (person, received_at);
CREATE INDEX ix_visit_round ON visit (round_id);
CREATE INDEX ix_visit_layer ON visit (layer_id, state, received_at);
CREATE INDEX ix_visit_hand_in ON visit (hand_in_id);

-- what a person handed in on a day is bounded
ALTER TABLE hand_in ADD COLUMN bytes BIGINT DEFAULT 0 NOT NULL;
CREATE INDEX ix_hand_in_person ON hand_in (person, received_at);

-- who announced a photo, and on which device; nobody else may send it
ALTER TABLE visit_photo ADD COLUMN person VARCHAR(40) DEFAULT '' NOT NULL;
ALTER TABLE visit_photo ADD COLUMN device_id VARCHAR(40) DEFAULT '' NOT NULL;
UPDATE visit_photo p SET person = (SELECT v.person FROM visit v WHERE v.id = p.visit_id);

-- what could not be read as a visit, each text under an id of its own, kept for ever
CREATE TABLE set_aside (
  id UUID PRIMARY KEY,
  row_version BIGINT DEFAULT 0 NOT NULL,
  hand_in_id UUID NOT NULL REFERENCES hand_in,
  project_id UUID,
  sent_id VARCHAR(40) NOT NULL,
  person VARCHAR(40) NOT NULL,
  device VARCHAR(80) NOT NULL,
  device_id VARCHAR(40) NOT NULL,
  received_at TIMESTAMP WITH TIME ZONE NOT NULL,
  document CHARACTER LARGE OBJECT NOT NULL,
  reason VARCHAR(1000) NOT NULL,
  fate VARCHAR(20) NOT NULL,
  fate_reason VARCHAR(1000) NOT NULL,
  given_to VARCHAR(40),
  decided_at TIMESTAMP WITH TIME ZONE,
  decided_by VARCHAR(40)
);
CREATE INDEX ix_set_aside_fate ON set_aside (fate, received_at);
CREATE INDEX ix_set_aside_person ON set_aside (person, received_at);
CREATE INDEX ix_set_aside_given ON set_aside (given_to);
INSERT INTO set_aside (id, hand_in_id, sent_id, person, device, device_id, received_at, document, reason, fate, fate_reason)
  SELECT id, hand_in_id, CAST(id AS VARCHAR), person, device, '', received_at, document, reason, 'open', '' FROM visit WHERE state = 'set aside';
DELETE FROM visit WHERE state = 'set aside';
