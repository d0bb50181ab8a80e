ALTER TABLE session DROP COLUMN confirmed_at;
ALTER TABLE person DROP COLUMN totp_step, DROP COLUMN totp_secret;
