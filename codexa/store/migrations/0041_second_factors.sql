-- What somebody of a team shows beside their password: codes of an app (RFC 6238), or a passkey (WebAuthn).
CREATE TABLE second_factor (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    kind text NOT NULL CHECK (kind IN ('codes', 'passkey')),
    name text NOT NULL,
    -- Of codes: the secret, encrypted, and the last step in which one was taken: none is taken twice.
    secret bytea,
    last_step bigint NOT NULL DEFAULT 0,
    -- Of a passkey.
    credential bytea UNIQUE,
    public_key bytea,
    uses bigint NOT NULL DEFAULT 0,
    -- Codes count once one was typed.
    confirmed_at timestamptz,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX second_factor_person ON second_factor (person_id);

-- Codes that stand for a lost second factor, each once.
CREATE TABLE recovery_code (
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    mark text NOT NULL,
    PRIMARY KEY (person_id, mark)
);

-- Somebody on the way in: the password was right, or a passkey is asked for; opens nothing.
CREATE TABLE sign_in_step (
    token_digest bytea PRIMARY KEY,
    person_id uuid REFERENCES person ON DELETE CASCADE,
    team_id uuid REFERENCES team ON DELETE CASCADE,
    challenge bytea,
    expires_at timestamptz NOT NULL
);
