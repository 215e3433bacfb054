-- what somebody is holds in a project, no longer everywhere
CREATE TABLE member (
  id UUID PRIMARY KEY,
  project_id UUID NOT NULL REFERENCES project,
  account VARCHAR(40) NOT NULL REFERENCES account,
  role VARCHAR(20) NOT NULL,
  UNIQUE (project_id, account, role)
);
CREATE INDEX ix_member_account ON member (account);
INSERT INTO member (id, project_id, account, role)
  SELECT RANDOM_UUID(), p.id, a.name, a.role FROM account a CROSS JOIN project p;

ALTER TABLE account ADD COLUMN keeper BOOLEAN DEFAULT FALSE NOT NULL;
UPDATE account SET keeper = TRUE WHERE role = 'coordinator';
ALTER TABLE account DROP COLUMN role;
