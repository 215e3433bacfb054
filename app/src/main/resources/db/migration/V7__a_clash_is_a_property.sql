-- that a visit clashes is a property of a waiting visit, not a state of its own
ALTER TABLE visit ADD COLUMN clash BOOLEAN DEFAULT FALSE NOT NULL;
UPDATE visit SET clash = TRUE, state = 'waiting' WHERE state = 'clash';
