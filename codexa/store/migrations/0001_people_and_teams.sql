-- Teams own forms; people belong to teams in a role; sessions live here so that any web process can end them.
CREATE TABLE team (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    slug text NOT NULL UNIQUE CHECK (slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'),
    name text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE person (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    email text NOT NULL,
    name text NOT NULL,
    password_hash text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX person_email ON person (lower(email));

CREATE TABLE membership (
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    role text NOT NULL CHECK (role IN ('owner', 'editor', 'reviewer', 'viewer')),
    PRIMARY KEY (team_id, person_id)
);
CREATE INDEX membership_person ON membership (person_id);

-- Only a digest of the cookie is kept: who reads this table can't sign in with it.
CREATE TABLE session (
    token_digest bytea PRIMARY KEY,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    csrf_token text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL
);
CREATE INDEX session_expiry ON session (expires_at);

-- Counted per e-mail and per network address, to slow guessing down.
CREATE TABLE failed_sign_in (
    subject text NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX failed_sign_in_subject ON failed_sign_in (subject, at);
