-- Where a person moved a crossing of a bake trace, or put it back; what was said last of each stands.
CREATE TABLE bake_trace_mark (
    id uuid PRIMARY KEY,
    trace_id uuid NOT NULL REFERENCES bake_trace,
    probe text NOT NULL,
    crossing text NOT NULL CHECK (crossing IN ('yeast_kill', 'gelatinised', 'arrival')),
    -- Put back where it is null.
    minute double precision CHECK (minute >= 0),
    -- What the slowest core arrives at with it, % of the bake.
    arrival_pct double precision,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL
);
CREATE INDEX bake_trace_mark_of_trace ON bake_trace_mark (trace_id, made_at DESC, id DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON bake_trace_mark
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
