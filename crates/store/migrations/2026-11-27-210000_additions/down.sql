ALTER TABLE method_stage DROP CONSTRAINT method_stage_adds_check;
CREATE FUNCTION pg_temp.ingredients_of(adds jsonb) RETURNS text[] LANGUAGE sql IMMUTABLE AS $$
    SELECT coalesce(array_agg(coalesce(one ->> 'ingredient', one #>> '{}') ORDER BY place), '{}')
    FROM jsonb_array_elements(adds) WITH ORDINALITY AS listed (one, place)
$$;
ALTER TABLE method_stage ALTER COLUMN adds TYPE text[] USING pg_temp.ingredients_of(adds);
