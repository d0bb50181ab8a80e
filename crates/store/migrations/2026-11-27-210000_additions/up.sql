-- What goes in at a stage may be a share of it, and at a temperature of its own: a word alone is all
-- of it, as it comes.
ALTER TABLE method_stage ALTER COLUMN adds TYPE jsonb USING to_jsonb(adds);
ALTER TABLE method_stage ADD CONSTRAINT method_stage_adds_check CHECK (jsonb_typeof(adds) = 'array');
