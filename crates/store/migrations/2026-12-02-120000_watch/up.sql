-- What of a finished batch is evidence, as it stood when the batch was written last.
CREATE TABLE batch_evidence (
    batch_id uuid PRIMARY KEY REFERENCES batch_state,
    features jsonb NOT NULL,
    changed_in bigint NOT NULL
);

-- A figure that drifts from batch to batch of a product on a line, until it no longer does.
CREATE TABLE drift (
    id uuid PRIMARY KEY,
    product_id uuid NOT NULL REFERENCES product,
    line_id uuid NOT NULL REFERENCES line,
    feature text NOT NULL CHECK (feature <> ''),
    side text NOT NULL CHECK (side IN ('above', 'below')),
    beyond integer NOT NULL CHECK (beyond > 0),
    looked_at integer NOT NULL CHECK (looked_at >= beyond),
    mean double precision NOT NULL,
    -- The batches that show it, newest first.
    batches uuid[] NOT NULL,
    began_at timestamptz NOT NULL,
    ended_at timestamptz
);
CREATE UNIQUE INDEX drift_open ON drift (product_id, line_id, feature, side) WHERE ended_at IS NULL;
CREATE INDEX drift_of_product ON drift (product_id);
CREATE INDEX drift_of_line ON drift (line_id);

-- Who has seen a drift: it is told to nobody else while it lasts.
CREATE TABLE drift_seen (
    id uuid PRIMARY KEY,
    drift_id uuid NOT NULL REFERENCES drift,
    seen_by text NOT NULL,
    seen_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX drift_seen_of_drift ON drift_seen (drift_id);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON drift_seen
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
