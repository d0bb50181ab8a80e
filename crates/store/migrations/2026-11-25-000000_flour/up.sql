-- What a flour is, what a specification asks and how, what becomes of a lot, its curves, how a
-- mill's own tables are read, and blends with what they are made of.

ALTER TABLE flour
    ADD COLUMN hardness text,
    ADD COLUMN extraction_pct double precision,
    ADD COLUMN treatment text NOT NULL DEFAULT 'none',
    ADD COLUMN intended_use text NOT NULL DEFAULT 'general';

ALTER TABLE specification_limit
    ADD COLUMN must boolean NOT NULL DEFAULT true,
    ADD COLUMN method text;

ALTER TABLE reading ADD COLUMN censored text;

-- When the flour came: delivered, else milled, else recorded. Lists and drift run along it, so it
-- stands in the lot and not only in its revisions.
ALTER TABLE lot ADD COLUMN came_at timestamptz NOT NULL DEFAULT now();
UPDATE lot SET came_at = coalesce(newest.delivered_on::timestamptz, newest.milled_on::timestamptz, lot.recorded_at)
    FROM (SELECT DISTINCT ON (lot_id) lot_id, delivered_on, milled_on FROM lot_revision
          ORDER BY lot_id, number DESC) AS newest
    WHERE newest.lot_id = lot.id;
DROP INDEX lot_newest;
DROP INDEX lot_newest_of_flour;
CREATE INDEX lot_newest ON lot (came_at DESC, id DESC);
CREATE INDEX lot_newest_of_flour ON lot (flour_id, came_at DESC, id DESC);

-- Append-only: the newest says how it stands.
CREATE TABLE lot_decision (
    id uuid PRIMARY KEY,
    lot_id uuid NOT NULL REFERENCES lot,
    decision text NOT NULL CHECK (decision IN ('accept', 'accept_with_note', 'hold', 'reject')),
    reason text NOT NULL,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX lot_decision_of_lot ON lot_decision (lot_id, made_at DESC, id DESC);

CREATE TABLE lot_stock (
    id uuid PRIMARY KEY,
    lot_id uuid NOT NULL REFERENCES lot,
    place text NOT NULL,
    tonnes_left double precision NOT NULL CHECK (tonnes_left >= 0),
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX lot_stock_of_lot ON lot_stock (lot_id, made_at DESC, id DESC);

-- A curve as it was drawn, with what reading it needs.
CREATE TABLE trace (
    id uuid PRIMARY KEY,
    lot_id uuid NOT NULL REFERENCES lot,
    kind text NOT NULL CHECK (kind IN ('farinograph', 'alveograph')),
    source text NOT NULL CHECK (source IN ('imported', 'instrument')),
    input jsonb NOT NULL,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX trace_of_lot ON trace (lot_id, made_at DESC, id DESC);

-- A reading's mark moved by a person; append-only. No minute puts it back where it was read.
CREATE TABLE trace_mark (
    id uuid PRIMARY KEY,
    trace_id uuid NOT NULL REFERENCES trace,
    mark text NOT NULL,
    minute double precision,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX trace_mark_of_trace ON trace_mark (trace_id, made_at, id);

CREATE TABLE mill_mapping (
    id uuid PRIMARY KEY,
    mill text NOT NULL,
    -- The table's headers, which say which of a mill's tables it is.
    headers text[] NOT NULL,
    mapping jsonb NOT NULL,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX mill_mapping_newest ON mill_mapping (headers, made_at DESC);

CREATE TABLE blend_revision (
    id uuid PRIMARY KEY,
    flour_id uuid NOT NULL REFERENCES flour,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    UNIQUE (flour_id, number)
);

CREATE TABLE blend_part (
    revision_id uuid NOT NULL REFERENCES blend_revision,
    position smallint NOT NULL,
    flour_id uuid NOT NULL REFERENCES flour,
    share_pct double precision NOT NULL CHECK (share_pct >= 0),
    PRIMARY KEY (revision_id, position)
);

-- The lots a blended lot was made of.
CREATE TABLE lot_part (
    lot_id uuid NOT NULL REFERENCES lot,
    position smallint NOT NULL,
    part_lot_id uuid NOT NULL REFERENCES lot,
    share_pct double precision NOT NULL CHECK (share_pct >= 0),
    PRIMARY KEY (lot_id, position)
);
