ALTER TABLE formula_part DROP COLUMN rate;
