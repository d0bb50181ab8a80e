-- A stage says the rise it ends at as a number; until now it was read out of its own words.
ALTER TABLE method_stage ADD COLUMN ends_at_rise_pct double precision
    CHECK (ends_at_rise_pct BETWEEN 5 AND 400);
UPDATE method_stage SET ends_at_rise_pct = CASE
    WHEN ends_when ~* 'half (as high )?again' THEN 50
    WHEN ends_when ~* 'a third (more|as high again)' THEN 33
    WHEN ends_when ~* 'double|twice' THEN 100
END
WHERE kind IN ('rest', 'fold', 'proof');
