-- What is everybody's of how things are said: the currency prices are in, the day a week begins
-- with, and the units of whoever has not chosen their own.
ALTER TABLE plant
    ADD COLUMN currency text NOT NULL DEFAULT '' CHECK (length(currency) <= 8),
    ADD COLUMN week_starts text NOT NULL DEFAULT 'monday'
        CHECK (week_starts IN ('monday', 'sunday', 'saturday')),
    ADD COLUMN temperature_unit text NOT NULL DEFAULT 'celsius'
        CHECK (temperature_unit IN ('celsius', 'fahrenheit')),
    ADD COLUMN mass_unit text NOT NULL DEFAULT 'kilogram'
        CHECK (mass_unit IN ('kilogram', 'pound'));
