-- Who works here, what each may do, and what each did.
CREATE TABLE person (
    id uuid PRIMARY KEY,
    name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 80),
    initials text NOT NULL CHECK (length(btrim(initials)) BETWEEN 1 AND 6),
    -- In lower case, so that it is one account however it is typed.
    email text NOT NULL UNIQUE CHECK (length(email) BETWEEN 3 AND 254 AND email = lower(email)),
    -- None until somebody sets one: nobody signs in without.
    password_hash text,
    active boolean NOT NULL DEFAULT true,
    -- An account of the demo plant: it opens nothing outside demo mode.
    demo boolean NOT NULL DEFAULT false,
    made_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE person_role (
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    role text NOT NULL CHECK (role IN ('technologist', 'floor', 'visitor', 'administrator')),
    PRIMARY KEY (person_id, role)
);

-- The token itself is the browser's alone.
CREATE TABLE session (
    id uuid PRIMARY KEY,
    token_hash bytea NOT NULL UNIQUE,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    made_at timestamptz NOT NULL DEFAULT now(),
    seen_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL
);
CREATE INDEX session_person ON session (person_id);

CREATE TABLE api_key (
    id uuid PRIMARY KEY,
    name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 80),
    key_hash bytea NOT NULL UNIQUE,
    role text NOT NULL CHECK (role IN ('technologist', 'floor', 'visitor', 'administrator')),
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    revoked_at timestamptz
);

-- Failures to sign in, of an account from an address and of an address alone (no account).
CREATE TABLE sign_in_failure (
    account text NOT NULL,
    address text NOT NULL,
    failures integer NOT NULL,
    failed_at timestamptz NOT NULL,
    PRIMARY KEY (account, address)
);

-- The code the first administrator is made with; one at most.
CREATE TABLE setup_code (
    singleton boolean PRIMARY KEY DEFAULT true CHECK (singleton),
    code_hash bytea NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE audit_entry (
    id uuid PRIMARY KEY,
    at timestamptz NOT NULL DEFAULT clock_timestamp(),
    person_id uuid REFERENCES person,
    api_key_id uuid REFERENCES api_key,
    -- As they were called then.
    who text NOT NULL,
    address text NOT NULL,
    -- What was done, as the API's document names it, and the address it was done at.
    action text NOT NULL,
    subject text NOT NULL,
    -- What was recorded, and between which of its revisions.
    record_id uuid,
    revision_before integer,
    revision_after integer,
    details jsonb
);
CREATE INDEX audit_entry_at ON audit_entry (at DESC, id DESC);
CREATE INDEX audit_entry_person ON audit_entry (person_id, at DESC, id DESC);
CREATE INDEX audit_entry_api_key ON audit_entry (api_key_id);

-- A client's write is its author's; older ones have the text they were signed with.
ALTER TABLE written ADD COLUMN person_id uuid REFERENCES person;
ALTER TABLE written ADD COLUMN api_key_id uuid REFERENCES api_key;
CREATE INDEX written_person ON written (person_id);
CREATE INDEX written_api_key ON written (api_key_id);

-- What is appended is never changed.
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION '% is append-only', TG_TABLE_NAME;
END $$;

DO $$
DECLARE
    name text;
BEGIN
    FOREACH name IN ARRAY ARRAY[
        'audit_entry', 'flour_revision', 'specification_revision', 'specification_limit',
        'lot_revision', 'reading', 'lot_disposition', 'lot_stock', 'trace', 'trace_mark',
        'blend_revision', 'blend_part', 'formula_revision', 'formula_line', 'formula_flour',
        'formula_part', 'formula_part_line', 'method_revision', 'method_stage', 'line_revision',
        'plant_parameters_revision', 'dough_temperature', 'batch', 'batch_flour', 'trial',
        'mill_mapping'
    ] LOOP
        EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON %I '
            'FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()', name);
    END LOOP;
END $$;
