-- What a tonne costs, to cost doughs and blends with.
ALTER TABLE flour ADD COLUMN price_per_t double precision CHECK (price_per_t >= 0);

-- Several flours of a formula, the main one first; none where the product's own is all of it.
CREATE TABLE formula_flour (
    revision_id uuid NOT NULL REFERENCES formula_revision,
    position smallint NOT NULL,
    flour_id uuid NOT NULL REFERENCES flour,
    share_pct double precision NOT NULL,
    PRIMARY KEY (revision_id, position)
);

-- What is made before the final dough. Everything in percent on all flour.
CREATE TABLE formula_part (
    revision_id uuid NOT NULL REFERENCES formula_revision,
    position smallint NOT NULL,
    kind text NOT NULL,
    name text NOT NULL,
    flour_id uuid REFERENCES flour,
    flour_pct double precision NOT NULL,
    water_pct double precision NOT NULL,
    temperature_c double precision,
    PRIMARY KEY (revision_id, position)
);

CREATE TABLE formula_part_line (
    revision_id uuid NOT NULL,
    part smallint NOT NULL,
    position smallint NOT NULL,
    ingredient text NOT NULL,
    pct double precision NOT NULL,
    PRIMARY KEY (revision_id, part, position),
    FOREIGN KEY (revision_id, part) REFERENCES formula_part
);

-- The plant's own numbers: rules of the stair, ingredients, what was learned of absorption.
CREATE TABLE plant_numbers_revision (
    id uuid PRIMARY KEY,
    number integer NOT NULL UNIQUE CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    numbers jsonb NOT NULL
);

ALTER TABLE batch ADD COLUMN numbers_revision_id uuid REFERENCES plant_numbers_revision;

-- The lots of a batch's other flours, in the order of its formula.
CREATE TABLE batch_flour (
    batch_id uuid NOT NULL REFERENCES batch,
    position smallint NOT NULL,
    lot_revision_id uuid NOT NULL REFERENCES lot_revision,
    specification_revision_id uuid NOT NULL REFERENCES specification_revision,
    PRIMARY KEY (batch_id, position)
);

-- Variants made side by side: what was asked for, and the doughs as they were set out.
CREATE TABLE trial (
    id uuid PRIMARY KEY,
    product_id uuid NOT NULL REFERENCES product,
    saved_at timestamptz NOT NULL DEFAULT now(),
    saved_by text NOT NULL,
    asked jsonb NOT NULL,
    issued jsonb NOT NULL
);
CREATE INDEX trial_newest ON trial (saved_at DESC, id DESC);
