DROP TABLE trial;
DROP TABLE batch_flour;
ALTER TABLE batch DROP COLUMN numbers_revision_id;
DROP TABLE plant_numbers_revision;
DROP TABLE formula_part_line;
DROP TABLE formula_part;
DROP TABLE formula_flour;
ALTER TABLE flour DROP COLUMN price_per_t;
