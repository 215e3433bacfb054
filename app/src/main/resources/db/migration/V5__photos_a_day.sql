-- what a person sends of photos on a day is bounded
CREATE INDEX ix_photo_person ON visit_photo (person, received_at);
