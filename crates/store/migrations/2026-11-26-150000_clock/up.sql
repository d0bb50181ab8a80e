-- The clock on the plant's wall, by its name in the time zone database.
ALTER TABLE plant ADD COLUMN time_zone text NOT NULL DEFAULT 'UTC';
