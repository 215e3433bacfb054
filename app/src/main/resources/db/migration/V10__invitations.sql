-- one-time links that make somebody a member of a project
CREATE TABLE invitation (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  token_hash VARCHAR(64) NOT NULL UNIQUE,
  name VARCHAR(40) NOT NULL,
  roles VARCHAR(200) NOT NULL,
  made_by VARCHAR(40) NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  expires_at TIMESTAMP WITH TIME ZONE NOT NULL,
  used_at TIMESTAMP WITH TIME ZONE,
  used_by VARCHAR(40)
);
CREATE INDEX ix_invitation_project ON invitation (project_id, made_at);
