-- A dough of a trial as it was baked: variants under one number were baked side by side.
CREATE TABLE bench_dough (
    id uuid PRIMARY KEY,
    trial_id uuid NOT NULL REFERENCES trial,
    bake smallint NOT NULL CHECK (bake > 0),
    -- Its place in the trial; the dough as it is comes first.
    variant smallint NOT NULL CHECK (variant >= 0),
    UNIQUE (trial_id, bake, variant)
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON bench_dough
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- A loaf is of a batch or of a trial's dough, and is judged by its product's standard.
ALTER TABLE sample
    ALTER COLUMN batch_id DROP NOT NULL,
    ADD COLUMN bench_dough_id uuid REFERENCES bench_dough,
    ADD COLUMN product_id uuid REFERENCES product,
    ADD CONSTRAINT sample_of_one CHECK ((batch_id IS NULL) <> (bench_dough_id IS NULL));
ALTER TABLE sample DISABLE TRIGGER append_only;
UPDATE sample SET product_id = batch.product_id FROM batch WHERE batch.id = sample.batch_id;
ALTER TABLE sample ENABLE TRIGGER append_only;
ALTER TABLE sample ALTER COLUMN product_id SET NOT NULL;
CREATE INDEX sample_of_bench_dough ON sample (bench_dough_id);
CREATE INDEX sample_of_product ON sample (product_id);

-- What was kept of a trial: the revisions it became, none where the dough stays as it is.
CREATE TABLE trial_kept (
    id uuid PRIMARY KEY,
    trial_id uuid NOT NULL REFERENCES trial,
    variant smallint NOT NULL CHECK (variant >= 0),
    reason text NOT NULL CHECK (reason <> ''),
    formula_revision_id uuid REFERENCES formula_revision,
    method_revision_id uuid REFERENCES method_revision,
    kept_by text NOT NULL,
    kept_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX trial_kept_of_trial ON trial_kept (trial_id);
CREATE INDEX trial_kept_formula ON trial_kept (formula_revision_id);
CREATE INDEX trial_kept_method ON trial_kept (method_revision_id);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON trial_kept
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
