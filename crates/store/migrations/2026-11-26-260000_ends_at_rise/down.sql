ALTER TABLE method_stage DROP COLUMN ends_at_rise_pct;
