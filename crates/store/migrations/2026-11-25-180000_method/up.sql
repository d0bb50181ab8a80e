-- What ends a stage, why it is there and how long it may be; what a line has besides its mixer; and
-- the temperatures of doughs, from which a mixer's friction is learned.

ALTER TABLE method_stage
    ADD COLUMN ends_by text NOT NULL DEFAULT 'look',
    ADD COLUMN reason text NOT NULL DEFAULT '',
    ADD COLUMN low_min double precision,
    ADD COLUMN high_min double precision,
    ADD CHECK ((low_min IS NULL) = (high_min IS NULL));

ALTER TABLE method_revision
    ADD COLUMN sponge_c double precision;

ALTER TABLE line_revision
    ADD COLUMN jacket_kj_per_kg_min double precision,
    ADD COLUMN turn_min double precision NOT NULL DEFAULT 3,
    ADD COLUMN troughs integer NOT NULL DEFAULT 4 CHECK (troughs > 0),
    ADD COLUMN trough_kg double precision NOT NULL DEFAULT 250 CHECK (trough_kg > 0),
    ADD COLUMN trough_m2 double precision NOT NULL DEFAULT 1.8,
    ADD COLUMN divider_per_min double precision NOT NULL DEFAULT 40 CHECK (divider_per_min > 0),
    ADD COLUMN proofer_pieces double precision NOT NULL DEFAULT 3000 CHECK (proofer_pieces > 0),
    ADD COLUMN oven_pieces double precision NOT NULL DEFAULT 1200 CHECK (oven_pieces > 0);

-- Append-only, with ids made by the sender: sent twice, stored once.
CREATE TABLE dough_temperature (
    id uuid PRIMARY KEY,
    method_id uuid NOT NULL REFERENCES method,
    line_id uuid NOT NULL REFERENCES line,
    taken_at timestamptz NOT NULL,
    taken_by text NOT NULL,
    flour_c double precision NOT NULL,
    room_c double precision NOT NULL,
    water_c double precision NOT NULL,
    preferment_c double precision,
    dough_c double precision NOT NULL
);
CREATE INDEX dough_temperature_newest ON dough_temperature (method_id, line_id, taken_at DESC, id DESC);
