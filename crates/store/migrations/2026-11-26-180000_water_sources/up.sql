-- What a line has its water from. Before it was asked, chilled water and water up to 60 °C were taken
-- to be had everywhere, and revisions of then keep that.
ALTER TABLE line_revision ALTER COLUMN chilled_min_c DROP NOT NULL;
ALTER TABLE line_revision RENAME COLUMN chilled_min_c TO chilled_c;
ALTER TABLE line_revision
    ADD COLUMN hot_c double precision CHECK (hot_c > 0),
    ADD COLUMN refrigerator_c double precision CHECK (refrigerator_c > 0);
UPDATE line_revision SET hot_c = 60;
