-- A photograph, once by its content however often it is sent; what it holds lies apart.
CREATE TABLE photograph (
    hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'),
    media_type text NOT NULL CHECK (media_type IN ('image/jpeg', 'image/png', 'image/webp')),
    width integer NOT NULL CHECK (width > 0),
    height integer NOT NULL CHECK (height > 0)
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON photograph
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

CREATE TABLE photograph_content (
    hash text PRIMARY KEY REFERENCES photograph,
    content bytea NOT NULL CHECK (octet_length(content) > 0)
);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON photograph_content
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- What a photograph shows of a sample; the newest of each stands.
CREATE TABLE sample_photograph (
    id uuid PRIMARY KEY,
    sample_id uuid NOT NULL REFERENCES sample,
    hash text NOT NULL REFERENCES photograph,
    shows text NOT NULL CHECK (shows IN ('cut_face', 'whole_loaf')),
    taken_by text NOT NULL,
    taken_at timestamptz NOT NULL
);
CREATE INDEX sample_photograph_of_sample ON sample_photograph (sample_id, shows, taken_at DESC, id DESC);
CREATE INDEX sample_photograph_of_content ON sample_photograph (hash);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON sample_photograph
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
