-- Tablets of the floor, and who was at each.
ALTER TABLE person ADD COLUMN pin_hash text;

CREATE TABLE station (
    id uuid PRIMARY KEY,
    name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 80),
    -- The token itself is the tablet's alone.
    token_hash bytea NOT NULL UNIQUE,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    seen_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL,
    -- After so long without a touch nobody is at it any more.
    idle_minutes integer NOT NULL CHECK (idle_minutes BETWEEN 1 AND 720)
);

CREATE TABLE station_presence (
    id uuid PRIMARY KEY,
    station_id uuid NOT NULL REFERENCES station,
    person_id uuid NOT NULL REFERENCES person,
    since timestamptz NOT NULL DEFAULT clock_timestamp(),
    -- None while they are at it.
    until timestamptz
);
CREATE UNIQUE INDEX station_presence_now ON station_presence (station_id) WHERE until IS NULL;
CREATE INDEX station_presence_person ON station_presence (station_id, person_id, since);
CREATE INDEX station_presence_of_person ON station_presence (person_id);

-- Where something was written, and whether its author showed that it was them.
ALTER TABLE written ADD COLUMN station_id uuid REFERENCES station;
ALTER TABLE written ADD COLUMN verified boolean NOT NULL DEFAULT true;
CREATE INDEX written_station ON written (station_id);
ALTER TABLE audit_entry ADD COLUMN station_id uuid REFERENCES station;
ALTER TABLE audit_entry ADD COLUMN verified boolean NOT NULL DEFAULT true;
CREATE INDEX audit_entry_station ON audit_entry (station_id);

-- Each server that starts on an empty plant prints a code, and each holds.
DROP TABLE setup_code;
CREATE TABLE setup_code (
    code_hash bytea PRIMARY KEY,
    made_at timestamptz NOT NULL DEFAULT now()
);

-- Whether something was ever done is asked by where.
CREATE INDEX audit_entry_subject ON audit_entry (subject);
