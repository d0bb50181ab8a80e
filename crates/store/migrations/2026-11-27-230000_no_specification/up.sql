-- A dough may be made of a flour of which nothing is asked.
ALTER TABLE batch ALTER COLUMN specification_revision_id DROP NOT NULL;
ALTER TABLE batch_flour ALTER COLUMN specification_revision_id DROP NOT NULL;
