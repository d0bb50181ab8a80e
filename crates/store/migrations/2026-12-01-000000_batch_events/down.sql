DROP TRIGGER note_deactivation ON person;
DROP FUNCTION note_deactivation();
ALTER TABLE person DROP COLUMN deactivated_at;
ALTER TABLE batch DISABLE TRIGGER append_only;
ALTER TABLE batch DROP COLUMN water_correction_id;
ALTER TABLE batch ENABLE TRIGGER append_only;
DROP TABLE learned_number;
DROP TABLE batch_lot;
ALTER TABLE batch DISABLE TRIGGER append_only;
ALTER TABLE batch ADD COLUMN state text NOT NULL DEFAULT 'planned'
    CHECK (state IN ('planned', 'running', 'done'));
UPDATE batch SET state = CASE batch_state.state WHEN 'planned' THEN 'planned'
        WHEN 'finished' THEN 'done' WHEN 'scrapped' THEN 'done' ELSE 'running' END
    FROM batch_state WHERE batch_state.batch_id = batch.id;
ALTER TABLE batch ENABLE TRIGGER append_only;
DROP TABLE batch_state;
DROP FUNCTION tell_of_batches();
DROP TABLE batch_event;
