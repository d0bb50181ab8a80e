DROP INDEX audit_entry_subject;
DROP TABLE setup_code;
CREATE TABLE setup_code (
    singleton boolean PRIMARY KEY DEFAULT true CHECK (singleton),
    code_hash bytea NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
ALTER TABLE audit_entry DROP COLUMN station_id, DROP COLUMN verified;
ALTER TABLE written DROP COLUMN station_id, DROP COLUMN verified;
DROP TABLE station_presence;
DROP TABLE station;
ALTER TABLE person DROP COLUMN pin_hash;
