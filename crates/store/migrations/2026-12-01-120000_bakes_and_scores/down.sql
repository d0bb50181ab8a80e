ALTER TABLE learned_number DROP CONSTRAINT learned_number_subject_check;
ALTER TABLE learned_number DISABLE TRIGGER append_only;
DELETE FROM learned_number WHERE subject = 'arrival';
ALTER TABLE learned_number ENABLE TRIGGER append_only;
ALTER TABLE learned_number ADD CONSTRAINT learned_number_subject_check
    CHECK (subject IN ('water_correction', 'friction', 'bake_loss'));
ALTER TABLE batch_state DROP COLUMN arrival_pct, DROP COLUMN score, DROP COLUMN crumb_is_low;
DROP TABLE product_standard;
DROP TABLE score_mark;
DROP TABLE score;
DROP TABLE sample;
DROP TABLE bake_trace_probe;
DROP TABLE bake_trace;
