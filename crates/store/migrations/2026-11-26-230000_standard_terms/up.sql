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
UPDATE batch SET issued = jsonb_set(
    issued, path, pg_temp.renamed(issued #> path, '{"message": "says"}'))
FROM (VALUES ('{chain,water,cautions}'::text[]), ('{chain,heat,remedies}')) AS kept (path)
WHERE issued #> path IS NOT NULL;
UPDATE trial SET asked = pg_temp.renamed(asked, '{"hand": "scenario", "pins": "revision_refs", "knobs": "run_settings", "levers": "interventions", "floor_pct": "dough_absorption_pct", "weigh_pct": "added_water_pct", "trouble": "error", "wish": "goal", "ends_by": "end_point", "window": "tolerance"}'), issued = pg_temp.renamed(issued, '{"hand": "scenario", "pins": "revision_refs", "knobs": "run_settings", "levers": "interventions", "floor_pct": "dough_absorption_pct", "weigh_pct": "added_water_pct", "trouble": "error", "wish": "goal", "ends_by": "end_point", "window": "tolerance"}');
UPDATE plant_numbers_revision SET numbers = pg_temp.renamed(numbers, '{"rules": "correction_factors"}');

ALTER TABLE lot_decision DROP CONSTRAINT lot_decision_decision_check;
UPDATE lot_decision SET decision = CASE decision WHEN 'accept' THEN 'release' WHEN 'accept_with_note' THEN 'release_with_note' ELSE decision END;
ALTER TABLE lot_decision ADD CHECK (decision IN ('release','release_with_note', 'hold', 'reject'));
UPDATE batch SET issued = replace(issued::text, '"decision": "accept_with_note"', '"decision": "release_with_note"')::jsonb
WHERE issued::text LIKE '%"accept_with_note"%';
ALTER TABLE lot_decision RENAME TO lot_disposition;
DROP FUNCTION pg_temp.renamed;
