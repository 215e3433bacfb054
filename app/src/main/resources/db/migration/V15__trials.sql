-- filled examples of a form, run again at each change of its draft
CREATE TABLE form_trial (
  id UUID PRIMARY KEY,
  form_id UUID NOT NULL REFERENCES form,
  name VARCHAR(120) NOT NULL,
  content CHARACTER LARGE OBJECT NOT NULL,
  kept_at TIMESTAMP WITH TIME ZONE NOT NULL,
  kept_by VARCHAR(40) NOT NULL
);
CREATE INDEX ix_form_trial ON form_trial (form_id, kept_at);

-- the visits of a form, the newest first
CREATE INDEX ix_visit_form ON visit (form_id, received_at);
