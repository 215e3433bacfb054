-- A round has several forms and several people, its stops lie on several layers, and it says what else may be visited.
CREATE TABLE round_form (
  id UUID PRIMARY KEY,
  round_id UUID NOT NULL REFERENCES round,
  form_id UUID NOT NULL REFERENCES form,
  place_in_round INT NOT NULL,
  UNIQUE (round_id, form_id)
);
INSERT INTO round_form (id, round_id, form_id, place_in_round) SELECT RANDOM_UUID(), id, form_id, 0 FROM round;

-- Without people a round is for anyone who goes out in its project. Who is taken off it may still hand in what was begun.
CREATE TABLE round_person (
  id UUID PRIMARY KEY,
  round_id UUID NOT NULL REFERENCES round,
  person VARCHAR(40) NOT NULL REFERENCES account,
  taken_off_at TIMESTAMP WITH TIME ZONE,
  UNIQUE (round_id, person)
);
INSERT INTO round_person (id, round_id, person) SELECT RANDOM_UUID(), id, person FROM round;
CREATE INDEX ix_round_person ON round_person (person);

ALTER TABLE stop ADD COLUMN layer_id UUID;
UPDATE stop SET layer_id = (SELECT r.layer_id FROM round r WHERE r.id = stop.round_id);
ALTER TABLE stop ALTER COLUMN layer_id SET NOT NULL;
ALTER TABLE stop ADD CONSTRAINT fk_stop_layer FOREIGN KEY (layer_id) REFERENCES layer;
ALTER TABLE stop ADD COLUMN note VARCHAR(1000) DEFAULT '' NOT NULL;
-- Who is to go there; null for whoever of the round comes first.
ALTER TABLE stop ADD COLUMN person VARCHAR(40) REFERENCES account;

ALTER TABLE round ADD COLUMN allows VARCHAR(20) DEFAULT 'stops' NOT NULL;
ALTER TABLE round ADD COLUMN starts DATE;
ALTER TABLE round ADD COLUMN expected INT DEFAULT 0 NOT NULL;
ALTER TABLE round ADD COLUMN area CHARACTER LARGE OBJECT;
ALTER TABLE round ADD COLUMN way CHARACTER LARGE OBJECT;
ALTER TABLE round ADD COLUMN closed_at TIMESTAMP WITH TIME ZONE;
ALTER TABLE round ADD COLUMN closed_by VARCHAR(40);
ALTER TABLE round DROP COLUMN layer_id;
ALTER TABLE round DROP COLUMN form_id;
ALTER TABLE round DROP COLUMN person;
