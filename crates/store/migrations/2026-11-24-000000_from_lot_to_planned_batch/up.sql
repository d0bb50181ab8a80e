-- Documents (specification, lot, formula, method, line) are never overwritten: a change is a new
-- revision with who, when and why, and a batch stays tied to the revisions it was made with.

CREATE TABLE mill (
    id uuid PRIMARY KEY,
    name text NOT NULL UNIQUE
);

CREATE TABLE flour (
    id uuid PRIMARY KEY,
    mill_id uuid NOT NULL REFERENCES mill,
    name text NOT NULL UNIQUE,
    species text NOT NULL,
    note text NOT NULL
);

CREATE TABLE specification_revision (
    id uuid PRIMARY KEY,
    flour_id uuid NOT NULL REFERENCES flour,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    UNIQUE (flour_id, number)
);

CREATE TABLE specification_limit (
    revision_id uuid NOT NULL REFERENCES specification_revision,
    position smallint NOT NULL,
    property text NOT NULL,
    basis text,
    min double precision,
    target double precision,
    max double precision,
    PRIMARY KEY (revision_id, position)
);

CREATE TABLE lot (
    id uuid PRIMARY KEY,
    flour_id uuid NOT NULL REFERENCES flour,
    code text NOT NULL,
    recorded_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (flour_id, code)
);
CREATE INDEX lot_newest ON lot (recorded_at DESC, id DESC);
CREATE INDEX lot_newest_of_flour ON lot (flour_id, recorded_at DESC, id DESC);
CREATE INDEX lot_code ON lot (lower(code) text_pattern_ops);

CREATE TABLE lot_revision (
    id uuid PRIMARY KEY,
    lot_id uuid NOT NULL REFERENCES lot,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    milled_on date,
    delivered_on date,
    tonnes double precision,
    UNIQUE (lot_id, number)
);

CREATE TABLE reading (
    lot_revision_id uuid NOT NULL REFERENCES lot_revision,
    position smallint NOT NULL,
    property text NOT NULL,
    value double precision NOT NULL,
    basis text,
    method text,
    -- As the certificate wrote it.
    stated_value text NOT NULL,
    stated_unit text NOT NULL,
    PRIMARY KEY (lot_revision_id, position),
    UNIQUE (lot_revision_id, property)
);

CREATE TABLE formula (
    id uuid PRIMARY KEY,
    name text NOT NULL UNIQUE
);

CREATE TABLE formula_revision (
    id uuid PRIMARY KEY,
    formula_id uuid NOT NULL REFERENCES formula,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    style_points double precision NOT NULL,
    piece_kg double precision NOT NULL CHECK (piece_kg > 0),
    scaling_loss_pct double precision NOT NULL,
    fermentation_loss_pct double precision NOT NULL,
    bake_loss_pct double precision NOT NULL,
    cooling_loss_pct double precision NOT NULL,
    UNIQUE (formula_id, number)
);

CREATE TABLE formula_line (
    revision_id uuid NOT NULL REFERENCES formula_revision,
    position smallint NOT NULL,
    ingredient text NOT NULL,
    pct double precision NOT NULL,
    PRIMARY KEY (revision_id, position)
);

CREATE TABLE method (
    id uuid PRIMARY KEY,
    name text NOT NULL UNIQUE
);

CREATE TABLE method_revision (
    id uuid PRIMARY KEY,
    method_id uuid NOT NULL REFERENCES method,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    process text NOT NULL,
    target_c double precision NOT NULL,
    machine_divided boolean NOT NULL,
    UNIQUE (method_id, number)
);

CREATE TABLE method_stage (
    revision_id uuid NOT NULL REFERENCES method_revision,
    position smallint NOT NULL,
    kind text NOT NULL,
    label text NOT NULL,
    minutes double precision NOT NULL,
    speed text,
    temperature_c double precision,
    humidity_pct double precision,
    ends_when text NOT NULL,
    adds text[] NOT NULL,
    PRIMARY KEY (revision_id, position)
);

CREATE TABLE line (
    id uuid PRIMARY KEY,
    name text NOT NULL UNIQUE
);

CREATE TABLE line_revision (
    id uuid PRIMARY KEY,
    line_id uuid NOT NULL REFERENCES line,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    mixer_name text NOT NULL,
    mixer_kind text NOT NULL,
    mixer_min_kg double precision NOT NULL,
    mixer_max_kg double precision NOT NULL CHECK (mixer_max_kg > 0),
    slow_kj_per_kg_min double precision NOT NULL,
    fast_kj_per_kg_min double precision NOT NULL,
    division_kg double precision NOT NULL CHECK (division_kg > 0),
    tap_c double precision NOT NULL,
    flour_c double precision NOT NULL,
    room_c double precision NOT NULL,
    chilled_min_c double precision NOT NULL,
    max_ice_pct double precision NOT NULL,
    UNIQUE (line_id, number)
);

CREATE TABLE product (
    id uuid PRIMARY KEY,
    slug text NOT NULL UNIQUE,
    name text NOT NULL UNIQUE,
    flour_id uuid NOT NULL REFERENCES flour,
    formula_id uuid NOT NULL REFERENCES formula,
    method_id uuid NOT NULL REFERENCES method,
    line_id uuid NOT NULL REFERENCES line
);

CREATE TABLE batch (
    id uuid PRIMARY KEY,
    product_id uuid NOT NULL REFERENCES product,
    lot_revision_id uuid NOT NULL REFERENCES lot_revision,
    specification_revision_id uuid NOT NULL REFERENCES specification_revision,
    formula_revision_id uuid NOT NULL REFERENCES formula_revision,
    method_revision_id uuid NOT NULL REFERENCES method_revision,
    line_revision_id uuid NOT NULL REFERENCES line_revision,
    state text NOT NULL DEFAULT 'planned' CHECK (state IN ('planned', 'running', 'done')),
    planned_for timestamptz NOT NULL,
    saved_at timestamptz NOT NULL DEFAULT now(),
    saved_by text NOT NULL,
    -- What was set for the night, and the sheet as it was handed to the floor: a record.
    knobs jsonb NOT NULL,
    issued jsonb NOT NULL
);
CREATE INDEX batch_newest ON batch (saved_at DESC, id DESC);
