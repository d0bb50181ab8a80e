-- How fast a starter goes beside the model, kept from its readings.
ALTER TABLE formula_part ADD COLUMN rate double precision CHECK (rate > 0);
