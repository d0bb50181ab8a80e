-- Whatever is written is told to every server that listens, once it is committed.
CREATE FUNCTION tell_of_entries() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    -- Who came and who was refused changes no record.
    PERFORM pg_notify('written', left(subject, 500)) FROM added
        WHERE subject <> '/api/v1/session' AND action NOT LIKE 'refused %';
    RETURN NULL;
END $$;

CREATE TRIGGER tell AFTER INSERT ON audit_entry
    REFERENCING NEW TABLE AS added
    FOR EACH STATEMENT EXECUTE FUNCTION tell_of_entries();
