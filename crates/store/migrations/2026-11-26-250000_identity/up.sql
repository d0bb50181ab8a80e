-- Stages and preparations are the same ones across revisions, whatever is renamed or moved. What is
-- on record is told by what it was called, from one revision of its document to the next.
ALTER TABLE method_stage ADD COLUMN stage_id uuid,
    ADD COLUMN optional_step text CHECK (optional_step IN ('yeast_proofed', 'autolyse', 'salt_late'));
UPDATE method_stage SET stage_id = named.id FROM (
    SELECT stage.revision_id, stage.position,
        md5(concat_ws('/', method_id, kind, label,
            row_number() OVER (PARTITION BY stage.revision_id, kind, label ORDER BY stage.position)))::uuid AS id
    FROM method_stage stage JOIN method_revision revision ON revision.id = stage.revision_id
) named
WHERE named.revision_id = method_stage.revision_id AND named.position = method_stage.position;
ALTER TABLE method_stage ALTER COLUMN stage_id SET NOT NULL, ADD UNIQUE (revision_id, stage_id);
-- Until now an optional step was known by what its stage was called.
UPDATE method_stage SET optional_step = 'yeast_proofed' WHERE label = 'Yeast in lukewarm water';
UPDATE method_stage SET optional_step = 'autolyse' WHERE kind = 'fold' AND label = 'One more set of folds';

ALTER TABLE formula_part ADD COLUMN preparation_id uuid;
UPDATE formula_part SET preparation_id = named.id FROM (
    SELECT part.revision_id, part.position,
        md5(concat_ws('/', formula_id, kind, name,
            row_number() OVER (PARTITION BY part.revision_id, kind, name ORDER BY part.position)))::uuid AS id
    FROM formula_part part JOIN formula_revision revision ON revision.id = part.revision_id
) named
WHERE named.revision_id = formula_part.revision_id AND named.position = formula_part.position;
ALTER TABLE formula_part ALTER COLUMN preparation_id SET NOT NULL, ADD UNIQUE (revision_id, preparation_id);
