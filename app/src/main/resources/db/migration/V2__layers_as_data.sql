ALTER TABLE layer ADD COLUMN summary VARCHAR(1000) DEFAULT '' NOT NULL;
ALTER TABLE layer ADD COLUMN tags VARCHAR(300) DEFAULT '' NOT NULL;
-- the coordinate system that the layer came in, or is meant to be taken out in
ALTER TABLE layer ADD COLUMN system_code VARCHAR(40) DEFAULT 'EPSG:4326' NOT NULL;
-- a GeoJSON geometry: positions outside of it are told
ALTER TABLE layer ADD COLUMN expected_area CHARACTER LARGE OBJECT;
-- here, or taken back with the import that made it
ALTER TABLE layer ADD COLUMN state VARCHAR(20) DEFAULT 'here' NOT NULL;

-- entries that were written by one act (import, tidy, change of the fields) and are taken back together
ALTER TABLE ledger_entry ADD COLUMN group_id UUID;
ALTER TABLE ledger_entry ADD COLUMN taken_back_by UUID;
CREATE INDEX ix_ledger_group ON ledger_entry (group_id);
CREATE INDEX ix_feature_made_by ON feature (made_by_entry);
