ALTER TABLE plant DROP COLUMN time_zone;
