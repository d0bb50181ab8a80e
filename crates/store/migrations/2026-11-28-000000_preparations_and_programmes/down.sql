-- A method before had no slicing.
ALTER TABLE method_stage DISABLE TRIGGER append_only;
UPDATE method_stage SET kind = 'cool' WHERE kind = 'slice';
ALTER TABLE method_stage ENABLE TRIGGER append_only;
ALTER TABLE method_stage
    DROP CONSTRAINT method_stage_kind_check,
    ADD CONSTRAINT method_stage_kind_check
        CHECK (kind IN ('mix', 'rest', 'fold', 'divide', 'proof', 'bake', 'cool'));
ALTER TABLE method_stage DROP COLUMN programme, DROP COLUMN makes;
ALTER TABLE formula_part DROP COLUMN set_c, DROP COLUMN water_c, DROP COLUMN vessel;
