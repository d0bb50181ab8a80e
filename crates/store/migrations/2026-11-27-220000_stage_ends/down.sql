-- Numbers of other signs than a rise have no place there.
ALTER TABLE method_stage DISABLE TRIGGER append_only;
ALTER TABLE method_stage
    DROP COLUMN ambient_curve,
    DROP COLUMN ends_after,
    DROP CONSTRAINT method_stage_ends_at_check;
UPDATE method_stage SET ends_at = NULL
WHERE end_point NOT IN ('look', 'rise', 'jar', 'poke', 'cracks');
ALTER TABLE method_stage RENAME COLUMN ends_at TO ends_at_rise_pct;
ALTER TABLE method_stage
    ADD CONSTRAINT method_stage_ends_at_rise_pct_check CHECK (ends_at_rise_pct BETWEEN 5 AND 400);
UPDATE method_stage SET end_point = 'look' WHERE end_point = 'drop';
ALTER TABLE method_stage ENABLE TRIGGER append_only;
