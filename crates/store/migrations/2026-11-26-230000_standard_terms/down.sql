-- One standard term for each thing, in columns and in the documents that are kept whole.
ALTER TABLE lot_disposition RENAME TO lot_decision;
ALTER TABLE lot RENAME COLUMN received_at TO came_at;
ALTER TABLE method_stage RENAME COLUMN end_point TO ends_by;
ALTER TABLE batch RENAME COLUMN run_settings TO knobs;

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

UPDATE batch SET issued = pg_temp.renamed(issued, '{"nonconformities": "concerns", "error": "trouble", "message": "says"}');
UPDATE trial SET asked = pg_temp.renamed(asked, '{"scenario": "hand", "revision_refs": "pins", "run_settings": "knobs", "interventions": "levers", "dough_absorption_pct": "floor_pct", "added_water_pct": "weigh_pct", "error": "trouble", "goal": "wish", "end_point": "ends_by", "tolerance": "window"}'), issued = pg_temp.renamed(issued, '{"scenario": "hand", "revision_refs": "pins", "run_settings": "knobs", "interventions": "levers", "dough_absorption_pct": "floor_pct", "added_water_pct": "weigh_pct", "error": "trouble", "goal": "wish", "end_point": "ends_by", "tolerance": "window"}');
UPDATE plant_numbers_revision SET numbers = pg_temp.renamed(numbers, '{"correction_factors": "rules"}');

ALTER TABLE lot_decision DROP CONSTRAINT lot_decision_decision_check;
UPDATE lot_decision SET decision = CASE decision WHEN 'release' THEN 'accept' WHEN 'release_with_note' THEN 'accept_with_note' ELSE decision END;
ALTER TABLE lot_decision ADD CHECK (decision IN ('accept','accept_with_note', 'hold', 'reject'));
UPDATE batch SET issued = replace(issued::text, '"decision": "release"', '"decision": "accept"')::jsonb
WHERE issued::text LIKE '%"decision": "release"%';
UPDATE batch SET issued = replace(issued::text, '"decision": "release_with_note"', '"decision": "accept_with_note"')::jsonb
WHERE issued::text LIKE '%"decision": "release_with_note"%';
DROP FUNCTION pg_temp.renamed;
