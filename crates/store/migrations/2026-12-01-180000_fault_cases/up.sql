-- What a person found of a proposed cause of a batch's fault: what was said last of a cause stands.
CREATE TABLE fault_case (
    id uuid PRIMARY KEY,
    batch_id uuid NOT NULL REFERENCES batch,
    fault text NOT NULL CHECK (fault <> ''),
    -- None of the listed ones where it is null.
    cause text CHECK (cause <> ''),
    verdict text NOT NULL CHECK (verdict IN ('confirmed', 'rejected')),
    by_change boolean NOT NULL,
    note text NOT NULL DEFAULT '',
    made_by text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX fault_case_of_batch ON fault_case (batch_id, fault);
CREATE INDEX fault_case_of_fault ON fault_case (fault, made_at);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON fault_case
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
