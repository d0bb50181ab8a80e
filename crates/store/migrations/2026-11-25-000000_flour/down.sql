DROP TABLE lot_part;
DROP TABLE blend_part;
DROP TABLE blend_revision;
DROP TABLE mill_mapping;
DROP TABLE trace_mark;
DROP TABLE trace;
DROP TABLE lot_stock;
DROP TABLE lot_decision;
DROP INDEX lot_newest_of_flour;
DROP INDEX lot_newest;
ALTER TABLE lot DROP COLUMN came_at;
CREATE INDEX lot_newest ON lot (recorded_at DESC, id DESC);
CREATE INDEX lot_newest_of_flour ON lot (flour_id, recorded_at DESC, id DESC);
ALTER TABLE reading DROP COLUMN censored;
ALTER TABLE specification_limit DROP COLUMN method, DROP COLUMN must;
ALTER TABLE flour
    DROP COLUMN intended_use,
    DROP COLUMN treatment,
    DROP COLUMN extraction_pct,
    DROP COLUMN hardness;
