DROP TRIGGER tell ON audit_entry;
DROP FUNCTION tell_of_entries;
