ALTER TABLE method_stage DROP COLUMN fold_sets;
