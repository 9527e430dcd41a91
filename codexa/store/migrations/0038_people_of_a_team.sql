-- Whom a team has invited, by mail; one invitation for each address.
CREATE TABLE invitation (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    email text NOT NULL,
    email_folded text NOT NULL,
    role text NOT NULL CHECK (role IN ('owner', 'editor', 'reviewer', 'viewer')),
    -- Of the link in the mail, which is made as the mail is sent.
    token_digest bytea NOT NULL DEFAULT '',
    invited_by uuid REFERENCES person ON DELETE SET NULL,
    invited_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL,
    UNIQUE (team_id, email_folded)
);
CREATE INDEX invitation_token ON invitation (token_digest) WHERE token_digest <> '';

-- Who has left a team, and who got what was theirs: mail that forms write to them goes there.
CREATE TABLE departure (
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    successor_id uuid REFERENCES person ON DELETE SET NULL,
    left_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (team_id, person_id)
);

-- Sessions are listed for whom they are of, and ended one by one: by an id that opens nothing.
ALTER TABLE session ADD COLUMN id uuid NOT NULL DEFAULT gen_random_uuid() UNIQUE,
    ADD COLUMN program text NOT NULL DEFAULT '';
