DROP TABLE trial_kept;
ALTER TABLE score DISABLE TRIGGER append_only;
ALTER TABLE score_mark DISABLE TRIGGER append_only;
ALTER TABLE sample DISABLE TRIGGER append_only;
DELETE FROM score_mark USING score, sample
    WHERE score_mark.score_id = score.id AND score.sample_id = sample.id AND sample.batch_id IS NULL;
DELETE FROM score USING sample WHERE score.sample_id = sample.id AND sample.batch_id IS NULL;
DELETE FROM sample WHERE batch_id IS NULL;
ALTER TABLE sample
    DROP COLUMN product_id,
    DROP COLUMN bench_dough_id,
    ALTER COLUMN batch_id SET NOT NULL;
ALTER TABLE score ENABLE TRIGGER append_only;
ALTER TABLE score_mark ENABLE TRIGGER append_only;
ALTER TABLE sample ENABLE TRIGGER append_only;
DROP TABLE bench_dough;
