-- Before, every flour had a specification: one that asks for nothing is made where there is none.
INSERT INTO specification_revision (id, flour_id, number, made_by, reason)
SELECT gen_random_uuid(), flour.id, 1, 'migration', 'nothing was asked of it'
FROM flour
WHERE NOT EXISTS (SELECT FROM specification_revision one WHERE one.flour_id = flour.id)
    AND EXISTS (
        SELECT FROM lot JOIN lot_revision ON lot_revision.lot_id = lot.id
        WHERE lot.flour_id = flour.id AND lot_revision.id IN (
            SELECT lot_revision_id FROM batch WHERE specification_revision_id IS NULL
            UNION SELECT lot_revision_id FROM batch_flour WHERE specification_revision_id IS NULL));
ALTER TABLE batch DISABLE TRIGGER append_only;
UPDATE batch SET specification_revision_id = (
    SELECT one.id FROM specification_revision one
    JOIN lot ON lot.flour_id = one.flour_id JOIN lot_revision ON lot_revision.lot_id = lot.id
    WHERE lot_revision.id = batch.lot_revision_id ORDER BY one.number LIMIT 1)
WHERE specification_revision_id IS NULL;
ALTER TABLE batch_flour DISABLE TRIGGER append_only;
UPDATE batch_flour SET specification_revision_id = (
    SELECT one.id FROM specification_revision one
    JOIN lot ON lot.flour_id = one.flour_id JOIN lot_revision ON lot_revision.lot_id = lot.id
    WHERE lot_revision.id = batch_flour.lot_revision_id ORDER BY one.number LIMIT 1)
WHERE specification_revision_id IS NULL;
ALTER TABLE batch ALTER COLUMN specification_revision_id SET NOT NULL;
ALTER TABLE batch_flour ALTER COLUMN specification_revision_id SET NOT NULL;
ALTER TABLE batch ENABLE TRIGGER append_only;
ALTER TABLE batch_flour ENABLE TRIGGER append_only;
