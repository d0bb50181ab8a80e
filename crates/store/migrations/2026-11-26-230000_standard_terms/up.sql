-- One standard term for each thing, in columns and in the documents that are kept whole.
ALTER TABLE lot RENAME COLUMN came_at TO received_at;
ALTER TABLE method_stage RENAME COLUMN ends_by TO end_point;
ALTER TABLE batch RENAME COLUMN knobs TO run_settings;

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

-- The words of a calculator's answer stay as they are: `says` of its cautions and remedies.
UPDATE batch SET issued = pg_temp.renamed(issued, '{"concerns": "nonconformities", "trouble": "error", "says": "message"}');
UPDATE batch SET issued = jsonb_set(issued, '{chain,water,cautions}',
    pg_temp.renamed(issued #> '{chain,water,cautions}', '{"message": "says"}'))
WHERE issued #> '{chain,water,cautions}' IS NOT NULL;
UPDATE batch SET issued = jsonb_set(issued, '{chain,heat,remedies}',
    pg_temp.renamed(issued #> '{chain,heat,remedies}', '{"message": "says"}'))
WHERE issued #> '{chain,heat,remedies}' IS NOT NULL;
UPDATE trial SET asked = pg_temp.renamed(asked, '{"hand": "scenario", "pins": "revision_refs", "knobs": "run_settings", "levers": "interventions", "floor_pct": "dough_absorption_pct", "weigh_pct": "added_water_pct", "trouble": "error", "wish": "goal", "ends_by": "end_point", "window": "tolerance"}'), issued = pg_temp.renamed(issued, '{"hand": "scenario", "pins": "revision_refs", "knobs": "run_settings", "levers": "interventions", "floor_pct": "dough_absorption_pct", "weigh_pct": "added_water_pct", "trouble": "error", "wish": "goal", "ends_by": "end_point", "window": "tolerance"}');
UPDATE plant_numbers_revision SET numbers = pg_temp.renamed(numbers, '{"rules": "correction_factors"}');

ALTER TABLE lot_decision DROP CONSTRAINT lot_decision_decision_check;
UPDATE lot_decision SET decision = CASE decision WHEN 'accept' THEN 'release' WHEN 'accept_with_note' THEN 'release_with_note' ELSE decision END;
ALTER TABLE lot_decision ADD CHECK (decision IN ('release','release_with_note', 'hold', 'reject'));
UPDATE batch SET issued = replace(issued::text, '"decision": "accept"', '"decision": "release"')::jsonb
WHERE issued::text LIKE '%"decision": "accept"%';
UPDATE batch SET issued = replace(issued::text, '"decision": "accept_with_note"', '"decision": "release_with_note"')::jsonb
WHERE issued::text LIKE '%"decision": "accept_with_note"%';
ALTER TABLE lot_decision RENAME TO lot_disposition;
DROP FUNCTION pg_temp.renamed;
