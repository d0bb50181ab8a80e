ALTER TABLE plant
    DROP COLUMN currency,
    DROP COLUMN week_starts,
    DROP COLUMN temperature_unit,
    DROP COLUMN mass_unit;
