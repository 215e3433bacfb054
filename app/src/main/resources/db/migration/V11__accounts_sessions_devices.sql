-- what somebody says of themselves, and what became of the account
ALTER TABLE account ADD COLUMN state VARCHAR(20) DEFAULT 'active' NOT NULL;
ALTER TABLE account ADD COLUMN email VARCHAR(254) DEFAULT '' NOT NULL;
ALTER TABLE account ADD COLUMN email_confirmed BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE account ADD COLUMN organisation VARCHAR(120) DEFAULT '' NOT NULL;
ALTER TABLE account ADD COLUMN zone VARCHAR(60) DEFAULT '' NOT NULL;
ALTER TABLE account ADD COLUMN written_style VARCHAR(20) DEFAULT '' NOT NULL;
ALTER TABLE account ADD COLUMN single_keys BOOLEAN DEFAULT TRUE NOT NULL;
CREATE INDEX ix_account_email ON account (email);

-- links that work once: a new password, an address that is confirmed
CREATE TABLE account_link (
  id UUID PRIMARY KEY,
  kind VARCHAR(20) NOT NULL,
  account VARCHAR(40) NOT NULL REFERENCES account,
  token_hash VARCHAR(64) NOT NULL UNIQUE,
  email VARCHAR(254) NOT NULL,
  made_by VARCHAR(40) NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  expires_at TIMESTAMP WITH TIME ZONE NOT NULL,
  used_at TIMESTAMP WITH TIME ZONE
);
CREATE INDEX ix_account_link ON account_link (account);

-- the terms of the installation, each version kept, and who accepted which
CREATE TABLE terms (
  version INT PRIMARY KEY,
  content CHARACTER LARGE OBJECT NOT NULL,
  made_by VARCHAR(40) NOT NULL,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL
);
CREATE TABLE terms_accepted (
  id UUID PRIMARY KEY,
  account VARCHAR(40) NOT NULL REFERENCES account,
  version INT NOT NULL REFERENCES terms,
  accepted_at TIMESTAMP WITH TIME ZONE NOT NULL,
  UNIQUE (account, version)
);

-- sessions, so that a restart signs nobody out (the tables that Spring Session asks for)
CREATE TABLE spring_session (
  primary_id CHAR(36) NOT NULL PRIMARY KEY,
  session_id CHAR(36) NOT NULL,
  creation_time BIGINT NOT NULL,
  last_access_time BIGINT NOT NULL,
  max_inactive_interval INT NOT NULL,
  expiry_time BIGINT NOT NULL,
  principal_name VARCHAR(100)
);
CREATE UNIQUE INDEX ix_session_id ON spring_session (session_id);
CREATE INDEX ix_session_expiry ON spring_session (expiry_time);
CREATE INDEX ix_session_principal ON spring_session (principal_name);
CREATE TABLE spring_session_attributes (
  session_primary_id CHAR(36) NOT NULL,
  attribute_name VARCHAR(200) NOT NULL,
  attribute_bytes BINARY LARGE OBJECT NOT NULL,
  PRIMARY KEY (session_primary_id, attribute_name),
  FOREIGN KEY (session_primary_id) REFERENCES spring_session (primary_id) ON DELETE CASCADE
);

-- what people carry outdoors
CREATE TABLE device (
  id UUID PRIMARY KEY,
  row_version BIGINT DEFAULT 0 NOT NULL,
  account VARCHAR(40) NOT NULL REFERENCES account,
  own_id VARCHAR(40) NOT NULL,
  name VARCHAR(80) NOT NULL,
  token_hash VARCHAR(64) UNIQUE,
  paired_at TIMESTAMP WITH TIME ZONE NOT NULL,
  paired_by VARCHAR(20) NOT NULL,
  session_id VARCHAR(36),
  contact_at TIMESTAMP WITH TIME ZONE,
  version VARCHAR(40) DEFAULT '' NOT NULL,
  bytes_left BIGINT,
  carries_visits INT DEFAULT 0 NOT NULL,
  carries_photos INT DEFAULT 0 NOT NULL,
  clock_off_seconds BIGINT,
  lon DOUBLE PRECISION,
  lat DOUBLE PRECISION,
  position_at TIMESTAMP WITH TIME ZONE,
  asked_at TIMESTAMP WITH TIME ZONE,
  asked_by VARCHAR(40),
  revoked_at TIMESTAMP WITH TIME ZONE,
  revoked_by VARCHAR(40),
  wiped_at TIMESTAMP WITH TIME ZONE
);
CREATE INDEX ix_device_account ON device (account);
CREATE TABLE device_pairing (
  id UUID PRIMARY KEY,
  code_hash VARCHAR(64) NOT NULL UNIQUE,
  account VARCHAR(40) NOT NULL REFERENCES account,
  made_at TIMESTAMP WITH TIME ZONE NOT NULL,
  expires_at TIMESTAMP WITH TIME ZONE NOT NULL,
  used_at TIMESTAMP WITH TIME ZONE
);

-- whether devices tell where they are when they are in contact
ALTER TABLE round ADD COLUMN tells_position BOOLEAN DEFAULT FALSE NOT NULL;

-- a project that is closed is read only; one that is removed is kept for a while
ALTER TABLE project ADD COLUMN made_at TIMESTAMP WITH TIME ZONE;
ALTER TABLE project ADD COLUMN closed_at TIMESTAMP WITH TIME ZONE;
ALTER TABLE project ADD COLUMN closed_by VARCHAR(40);
ALTER TABLE project ADD COLUMN removed_at TIMESTAMP WITH TIME ZONE;
ALTER TABLE project ADD COLUMN removed_by VARCHAR(40);
