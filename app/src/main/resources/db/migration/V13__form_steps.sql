-- each change of a draft, so that it can be taken back
CREATE TABLE form_step (
  id UUID PRIMARY KEY,
  form_id UUID NOT NULL REFERENCES form,
  number BIGINT NOT NULL,
  person VARCHAR(40) NOT NULL,
  at TIMESTAMP WITH TIME ZONE NOT NULL,
  what VARCHAR(4000) NOT NULL,
  delta CHARACTER LARGE OBJECT NOT NULL,
  state VARCHAR(20) NOT NULL,
  -- the draft's revision at which it was last applied or taken back
  touched BIGINT NOT NULL,
  UNIQUE (form_id, number)
);
CREATE INDEX ix_form_step_person ON form_step (form_id, person, state, number);
