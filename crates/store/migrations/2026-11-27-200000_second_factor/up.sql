-- Codes of an authenticator, beside the password, for who set one up.
ALTER TABLE person ADD COLUMN totp_secret text;
-- The step of time of the last code that was taken: none is taken twice.
ALTER TABLE person ADD COLUMN totp_step bigint;
-- When whoever is signed in last gave their password here.
ALTER TABLE session ADD COLUMN confirmed_at timestamptz NOT NULL DEFAULT now();
