ALTER TABLE line_revision DROP COLUMN refrigerator_c, DROP COLUMN hot_c;
ALTER TABLE line_revision RENAME COLUMN chilled_c TO chilled_min_c;
UPDATE line_revision SET chilled_min_c = 2 WHERE chilled_min_c IS NULL;
ALTER TABLE line_revision ALTER COLUMN chilled_min_c SET NOT NULL;
