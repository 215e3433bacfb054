-- a picture that came with a file is one of its feature and belongs to no visit
ALTER TABLE visit_photo ALTER COLUMN visit_id SET NULL;
ALTER TABLE visit_photo ADD COLUMN layer_id UUID;
ALTER TABLE visit_photo ADD COLUMN feature_id UUID;
CREATE INDEX ix_photo_feature ON visit_photo (layer_id, feature_id);
