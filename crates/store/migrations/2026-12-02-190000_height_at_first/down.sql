ALTER TABLE method_stage DROP COLUMN begins_at_mm;
