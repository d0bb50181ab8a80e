-- Every write of a client, by its own id: the same again is answered with what is stored, another
-- under the same id is refused.
CREATE TABLE written (
    id uuid PRIMARY KEY,
    body_hash bytea NOT NULL,
    written_by text NOT NULL,
    written_at timestamptz NOT NULL DEFAULT now()
);

-- What a flour is and costs is revised like everything else; the row of the flour is its newest state.
CREATE TABLE flour_revision (
    id uuid PRIMARY KEY,
    flour_id uuid NOT NULL REFERENCES flour,
    number integer NOT NULL CHECK (number > 0),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    is_now jsonb NOT NULL,
    UNIQUE (flour_id, number)
);
ALTER TABLE flour ADD COLUMN allergens jsonb;
INSERT INTO flour_revision (id, flour_id, number, made_by, reason, is_now)
SELECT gen_random_uuid(), flour.id, 1, 'before revisions', 'as it stood when revisions began',
    to_jsonb(flour) || jsonb_build_object('mill', mill.name)
FROM flour JOIN mill ON mill.id = flour.mill_id;

-- What a formula is meant to hold: its own water, or as the flour takes; and its usual batch.
ALTER TABLE formula_revision
    ADD COLUMN hydration_pct double precision CHECK (hydration_pct >= 0),
    ADD COLUMN batch_kg double precision CHECK (batch_kg > 0);

-- A release holds for the certificate and the specification it was given for.
ALTER TABLE lot_decision
    ADD COLUMN lot_revision_id uuid REFERENCES lot_revision,
    ADD COLUMN specification_revision_id uuid REFERENCES specification_revision;

-- A measured dough keeps its own ice, masses and jacket.
ALTER TABLE dough_temperature
    ADD COLUMN ice_share_pct double precision NOT NULL DEFAULT 0 CHECK (ice_share_pct BETWEEN 0 AND 100),
    ADD COLUMN ice_c double precision NOT NULL DEFAULT 0 CHECK (ice_c <= 0),
    ADD COLUMN mixed jsonb;

-- The plant's own settings, one row.
CREATE TABLE plant (
    singleton boolean PRIMARY KEY DEFAULT true CHECK (singleton),
    -- What a kilo of each of the house's ingredients costs here.
    prices jsonb NOT NULL DEFAULT '[]'
);
INSERT INTO plant DEFAULT VALUES;

-- Questions asked of batches.
CREATE INDEX batch_of_product ON batch (product_id, saved_at DESC, id DESC);
CREATE INDEX batch_of_lot ON batch (lot_revision_id);
CREATE INDEX batch_flour_of_lot ON batch_flour (lot_revision_id);
CREATE INDEX lot_part_of ON lot_part (part_lot_id);
CREATE INDEX trial_of_product ON trial (product_id, saved_at DESC, id DESC);

-- What the code takes for granted.
ALTER TABLE flour ADD CHECK (species IN ('wheat', 'durum', 'spelt', 'emmer', 'einkorn', 'khorasan', 'rye',
    'gluten_free', 'low_starch'));
ALTER TABLE method_revision ADD CHECK (process IN ('no_time', 'straight_bulk', 'sponge_dough', 'long_cold',
    'frozen'));
ALTER TABLE method_stage ADD CHECK (kind IN ('mix', 'rest', 'fold', 'divide', 'proof', 'bake', 'cool'));
ALTER TABLE reading ADD CHECK (censored IN ('below', 'above'));
