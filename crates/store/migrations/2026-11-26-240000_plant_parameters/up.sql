-- A plant's parameters by their standard term; its own values of coefficients by their keys.
ALTER TABLE plant_numbers_revision RENAME COLUMN numbers TO parameters;
ALTER TABLE plant_numbers_revision RENAME TO plant_parameters_revision;
ALTER TABLE batch RENAME COLUMN numbers_revision_id TO parameters_revision_id;
ALTER INDEX batch_numbers_revision_id RENAME TO batch_parameters_revision_id;

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

UPDATE plant_parameters_revision SET parameters = pg_temp.renamed(parameters, '{"correction_factors": "coefficients", "rule": "key"}');
UPDATE trial SET asked = pg_temp.renamed(asked, '{"numbers_revision_id": "parameters_revision_id"}');
UPDATE batch SET issued = jsonb_set(issued, '{chain,water,steps}',
    pg_temp.renamed(issued #> '{chain,water,steps}', '{"rule": "coefficient"}'))
WHERE issued #> '{chain,water,steps}' IS NOT NULL;
DROP FUNCTION pg_temp.renamed;
