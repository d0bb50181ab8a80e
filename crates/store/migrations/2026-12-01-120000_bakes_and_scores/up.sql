-- Core temperatures of a batch's bake, as a logger wrote them.
CREATE TABLE bake_trace (
    id uuid PRIMARY KEY,
    batch_id uuid NOT NULL REFERENCES batch,
    source text NOT NULL CHECK (source IN ('imported', 'instrument')),
    bake_min double precision NOT NULL CHECK (bake_min > 0),
    t_min double precision[] NOT NULL,
    -- Read off it when it was recorded, of the slowest probe: what lists and learning ask for.
    arrival_pct double precision,
    steam_until_min double precision,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX bake_trace_of_batch ON bake_trace (batch_id, made_at DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON bake_trace
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

CREATE TABLE bake_trace_probe (
    trace_id uuid NOT NULL REFERENCES bake_trace,
    place smallint NOT NULL CHECK (place >= 0),
    name text NOT NULL,
    core_c double precision[] NOT NULL,
    PRIMARY KEY (trace_id, place)
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON bake_trace_probe
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- A loaf of a batch under a code, so that a judge does not know which it is; one may have several.
CREATE TABLE sample (
    id uuid PRIMARY KEY,
    batch_id uuid NOT NULL REFERENCES batch,
    loaf smallint NOT NULL CHECK (loaf > 0),
    code text NOT NULL CHECK (code <> ''),
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sample_of_batch ON sample (batch_id);
CREATE INDEX sample_code ON sample (code, made_at DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON sample
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- What a judge said of a sample; where judges disagree they look a second time.
CREATE TABLE score (
    id uuid PRIMARY KEY,
    sample_id uuid NOT NULL REFERENCES sample,
    round smallint NOT NULL CHECK (round IN (1, 2)),
    judge text NOT NULL CHECK (judge <> ''),
    person_id uuid REFERENCES person,
    note text NOT NULL DEFAULT '',
    scored_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (sample_id, judge, round)
);
CREATE INDEX score_person ON score (person_id);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON score
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

CREATE TABLE score_mark (
    score_id uuid NOT NULL REFERENCES score,
    characteristic text NOT NULL CHECK (characteristic IN ('volume', 'shape', 'crust_colour',
        'crust_character', 'break', 'openness', 'evenness', 'crumb_colour', 'texture', 'stickiness',
        'slicing', 'flavour')),
    mark double precision NOT NULL CHECK (mark BETWEEN 1 AND 5),
    sign text CHECK (sign IN ('too_little', 'too_much')),
    measured double precision,
    PRIMARY KEY (score_id, characteristic)
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON score_mark
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- What a product is held to when it is judged: a revision each.
CREATE TABLE product_standard (
    id uuid PRIMARY KEY,
    product_id uuid NOT NULL REFERENCES product,
    number integer NOT NULL CHECK (number > 0),
    standard jsonb NOT NULL CHECK (jsonb_typeof(standard) = 'object'),
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by text NOT NULL,
    reason text NOT NULL,
    UNIQUE (product_id, number)
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON product_standard
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- What traces and judges say of a batch, kept beside what its events say.
ALTER TABLE batch_state
    ADD COLUMN arrival_pct double precision,
    ADD COLUMN score double precision,
    ADD COLUMN crumb_is_low boolean NOT NULL DEFAULT false;

ALTER TABLE learned_number DROP CONSTRAINT learned_number_subject_check;
ALTER TABLE learned_number ADD CONSTRAINT learned_number_subject_check
    CHECK (subject IN ('water_correction', 'friction', 'bake_loss', 'arrival'));
