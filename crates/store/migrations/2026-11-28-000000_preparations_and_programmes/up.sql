-- What a preparation is made in, and how warm: its water, or itself; one follows from the other.
ALTER TABLE formula_part
    ADD COLUMN vessel text CHECK (vessel IN ('mixer_bowl', 'trough', 'bowl', 'tub', 'pot')),
    ADD COLUMN water_c double precision CHECK (water_c BETWEEN 0 AND 100),
    ADD COLUMN set_c double precision CHECK (set_c BETWEEN 0 AND 95),
    ADD CHECK (water_c IS NULL OR set_c IS NULL);
ALTER TABLE method_stage
    DROP CONSTRAINT method_stage_kind_check,
    ADD CONSTRAINT method_stage_kind_check
        CHECK (kind IN ('mix', 'rest', 'fold', 'divide', 'proof', 'bake', 'cool', 'slice'));
-- Which preparation a stage mixes or rests, and what an oven does in a bake's phases.
ALTER TABLE method_stage
    ADD COLUMN makes text CHECK (makes IN ('sponge', 'starter', 'autolyse', 'scald', 'soaker')),
    ADD COLUMN programme jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(programme) = 'array');
