-- How high a piece stands as a stage begins that ends at a height.
ALTER TABLE method_stage ADD COLUMN begins_at_mm double precision CHECK (begins_at_mm > 0);
