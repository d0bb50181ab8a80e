-- What happens to a batch: appended to, never changed. An event's id is the client's own.
CREATE TABLE batch_event (
    id uuid PRIMARY KEY,
    batch_id uuid NOT NULL REFERENCES batch,
    kind text NOT NULL CHECK (kind IN ('start', 'stage_begin', 'stage_end', 'reading', 'observation',
        'addition', 'consistency', 'hold', 'resume', 'note', 'finish', 'scrap', 'correct')),
    stage_id uuid,
    happened_at timestamptz NOT NULL,
    -- As the sender's clock said it, where that was off.
    claimed_at timestamptz,
    recorded_at timestamptz NOT NULL DEFAULT now(),
    person_id uuid REFERENCES person,
    who text NOT NULL,
    station_id uuid REFERENCES station,
    api_key_id uuid REFERENCES api_key,
    verified boolean NOT NULL DEFAULT true,
    corrects uuid,
    -- As it was sent.
    body jsonb NOT NULL,
    body_hash bytea NOT NULL
);
CREATE INDEX batch_event_of_batch ON batch_event (batch_id, happened_at, id);
CREATE INDEX batch_event_person ON batch_event (person_id, happened_at DESC);
CREATE INDEX batch_event_station ON batch_event (station_id);
CREATE INDEX batch_event_api_key ON batch_event (api_key_id);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON batch_event
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- What a batch's events come to, written with them: lists, boards and charts read it.
CREATE TABLE batch_state (
    batch_id uuid PRIMARY KEY REFERENCES batch,
    state text NOT NULL DEFAULT 'planned'
        CHECK (state IN ('planned', 'running', 'held', 'finished', 'scrapped')),
    planned_for timestamptz NOT NULL,
    product_id uuid NOT NULL REFERENCES product,
    line_id uuid NOT NULL REFERENCES line,
    flour_id uuid NOT NULL REFERENCES flour,
    lot_id uuid NOT NULL REFERENCES lot,
    started_at timestamptz,
    ended_at timestamptz,
    events integer NOT NULL DEFAULT 0,
    unplaced integer NOT NULL DEFAULT 0,
    dough_c double precision,
    dough_c_d double precision,
    -- Water over plan and by feel, and what the plan held of the standing correction, points.
    water_pts double precision,
    by_feel_pts double precision,
    standing_pts double precision NOT NULL DEFAULT 0,
    water_complete boolean NOT NULL DEFAULT false,
    consistency double precision,
    mixing_kj_per_kg double precision,
    proof_min double precision,
    bake_min double precision,
    loss_pct double precision,
    pieces_good double precision,
    pieces_rejected double precision,
    friction_c double precision,
    -- Whether nothing may be learned of its water.
    damaged_starch_caution boolean NOT NULL DEFAULT false,
    water_was_set boolean NOT NULL DEFAULT false,
    -- The transaction that wrote it last: what somebody missed is what was written since.
    changed_in bigint NOT NULL DEFAULT (pg_current_xact_id()::text)::bigint
);
INSERT INTO batch_state (batch_id, planned_for, product_id, line_id, flour_id, lot_id)
    SELECT batch.id, planned_for, product_id, line_revision.line_id, lot.flour_id, lot.id
    FROM batch
    JOIN line_revision ON line_revision.id = line_revision_id
    JOIN lot_revision ON lot_revision.id = lot_revision_id
    JOIN lot ON lot.id = lot_revision.lot_id;
CREATE INDEX batch_state_newest ON batch_state (planned_for DESC, batch_id DESC);
CREATE INDEX batch_state_of_product ON batch_state (product_id, line_id, planned_for DESC, batch_id DESC);
CREATE INDEX batch_state_of_line ON batch_state (line_id, planned_for DESC, batch_id DESC);
CREATE INDEX batch_state_of_lot ON batch_state (lot_id, planned_for DESC, batch_id DESC);
CREATE INDEX batch_state_of_flour ON batch_state (flour_id);
CREATE INDEX batch_state_by_state ON batch_state (state, planned_for DESC, batch_id DESC);
CREATE INDEX batch_state_changed ON batch_state (changed_in);

ALTER TABLE batch DISABLE TRIGGER append_only;
ALTER TABLE batch DROP COLUMN state;
ALTER TABLE batch ENABLE TRIGGER append_only;

-- Which lots a batch is made of, and how much of each: what a recall asks, both ways.
CREATE TABLE batch_lot (
    batch_id uuid NOT NULL REFERENCES batch,
    lot_id uuid NOT NULL REFERENCES lot,
    kg double precision CHECK (kg >= 0),
    PRIMARY KEY (batch_id, lot_id)
);
CREATE INDEX batch_lot_of_lot ON batch_lot (lot_id, batch_id);
INSERT INTO batch_lot (batch_id, lot_id)
    SELECT batch.id, lot_revision.lot_id FROM batch
        JOIN lot_revision ON lot_revision.id = batch.lot_revision_id
    UNION
    SELECT batch_flour.batch_id, lot_revision.lot_id FROM batch_flour
        JOIN lot_revision ON lot_revision.id = batch_flour.lot_revision_id;
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON batch_lot
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- A learned number that somebody took over, put back, or lets be learned anew: a revision each.
CREATE TABLE learned_number (
    id uuid PRIMARY KEY,
    subject text NOT NULL CHECK (subject IN ('water_correction', 'friction', 'bake_loss')),
    product_id uuid NOT NULL REFERENCES product,
    line_id uuid NOT NULL REFERENCES line,
    flour_id uuid NOT NULL REFERENCES flour,
    number integer NOT NULL CHECK (number > 0),
    -- None where it was put back.
    value double precision,
    sd double precision,
    batches integer NOT NULL DEFAULT 0,
    -- Learned from batches after this alone.
    begins_at timestamptz,
    saved_at timestamptz NOT NULL DEFAULT now(),
    saved_by text NOT NULL,
    reason text NOT NULL,
    UNIQUE (subject, product_id, line_id, flour_id, number)
);
CREATE INDEX learned_number_line ON learned_number (line_id);
CREATE INDEX learned_number_product ON learned_number (product_id);
CREATE INDEX learned_number_flour ON learned_number (flour_id);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON learned_number
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- Which of them a batch was planned with.
ALTER TABLE batch DISABLE TRIGGER append_only;
ALTER TABLE batch ADD COLUMN water_correction_id uuid REFERENCES learned_number;
ALTER TABLE batch ENABLE TRIGGER append_only;
CREATE INDEX batch_water_correction_id ON batch (water_correction_id);

-- A batch that changed is told by its id and state, with the place from which a reader who was away
-- asks again: whatever was written by older transactions was told before.
CREATE FUNCTION tell_of_batches() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM pg_notify('written', 'batch ' || batch_id || ' ' || state || ' '
        || pg_snapshot_xmin(pg_current_snapshot())::text) FROM changed;
    RETURN NULL;
END $$;
CREATE TRIGGER tell_new AFTER INSERT ON batch_state
    REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_of_batches();
CREATE TRIGGER tell_changed AFTER UPDATE ON batch_state
    REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_of_batches();

-- Since when somebody works here no more: what they did before stays theirs.
ALTER TABLE person ADD COLUMN deactivated_at timestamptz;
UPDATE person SET deactivated_at = now() WHERE NOT active;
CREATE FUNCTION note_deactivation() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    NEW.deactivated_at = CASE WHEN NEW.active THEN NULL ELSE coalesce(OLD.deactivated_at, now()) END;
    RETURN NEW;
END $$;
CREATE TRIGGER note_deactivation BEFORE UPDATE OF active ON person
    FOR EACH ROW EXECUTE FUNCTION note_deactivation();
