CREATE FUNCTION pg_temp.renamed(document jsonb, names jsonb) RETURNS jsonb LANGUAGE sql AS $$
    SELECT CASE jsonb_typeof(document)
        WHEN 'object' THEN coalesce((
            SELECT jsonb_object_agg(coalesce(names ->> key, key), pg_temp.renamed(value, names))
            FROM jsonb_each(document)), '{}')
        WHEN 'array' THEN coalesce((
            SELECT jsonb_agg(pg_temp.renamed(value, names) ORDER BY at)
            FROM jsonb_array_elements(document) WITH ORDINALITY AS each (value, at)), '[]')
        ELSE document
    END
$$;

UPDATE batch SET issued = jsonb_set(issued, '{chain,water,steps}',
    pg_temp.renamed(issued #> '{chain,water,steps}', '{"coefficient": "rule"}'))
WHERE issued #> '{chain,water,steps}' IS NOT NULL;
UPDATE trial SET asked = pg_temp.renamed(asked, '{"parameters_revision_id": "numbers_revision_id"}');
UPDATE plant_parameters_revision SET parameters = pg_temp.renamed(parameters, '{"coefficients": "correction_factors", "key": "rule"}');
DROP FUNCTION pg_temp.renamed;

ALTER INDEX batch_parameters_revision_id RENAME TO batch_numbers_revision_id;
ALTER TABLE batch RENAME COLUMN parameters_revision_id TO numbers_revision_id;
ALTER TABLE plant_parameters_revision RENAME TO plant_numbers_revision;
ALTER TABLE plant_numbers_revision RENAME COLUMN parameters TO numbers;
