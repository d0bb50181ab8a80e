-- A stage ends at a number in the unit of what its sign is read by: a rise, a temperature, a height, a
-- pH, minutes after another stage. Until now only a rise was kept.
ALTER TABLE method_stage DROP CONSTRAINT method_stage_ends_at_rise_pct_check;
ALTER TABLE method_stage RENAME COLUMN ends_at_rise_pct TO ends_at;
ALTER TABLE method_stage DISABLE TRIGGER append_only;
UPDATE method_stage SET end_point = 'rise'
WHERE ends_at IS NOT NULL AND end_point NOT IN ('look', 'rise', 'jar', 'poke', 'cracks');
ALTER TABLE method_stage ENABLE TRIGGER append_only;
ALTER TABLE method_stage
    ADD CONSTRAINT method_stage_ends_at_check CHECK (ends_at BETWEEN CASE end_point
            WHEN 'temperature' THEN -30 WHEN 'core_temperature' THEN -30
            WHEN 'ph' THEN 3 WHEN 'time' THEN 0 ELSE 5 END
        AND CASE end_point
            WHEN 'temperature' THEN 60 WHEN 'core_temperature' THEN 110
            WHEN 'height' THEN 500 WHEN 'ph' THEN 7 WHEN 'time' THEN 14400 ELSE 400 END),
    ADD COLUMN ends_after uuid,
    -- What is around the dough as it changes: minutes after the stage began, and °C.
    ADD COLUMN ambient_curve jsonb NOT NULL DEFAULT '[]'
        CHECK (jsonb_typeof(ambient_curve) = 'array');
