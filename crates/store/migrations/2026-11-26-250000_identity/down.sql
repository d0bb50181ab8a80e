ALTER TABLE formula_part DROP COLUMN preparation_id;
ALTER TABLE method_stage DROP COLUMN stage_id, DROP COLUMN optional_step;
