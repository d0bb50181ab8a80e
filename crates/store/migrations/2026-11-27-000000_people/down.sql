DO $$
DECLARE
    name text;
BEGIN
    FOR name IN SELECT event_object_table FROM information_schema.triggers
        WHERE trigger_name = 'append_only' AND event_manipulation = 'UPDATE' LOOP
        EXECUTE format('DROP TRIGGER append_only ON %I', name);
    END LOOP;
END $$;
DROP FUNCTION refuse_change();
ALTER TABLE written DROP COLUMN api_key_id, DROP COLUMN person_id;
DROP TABLE audit_entry, setup_code, sign_in_failure, api_key, session, person_role, person;
