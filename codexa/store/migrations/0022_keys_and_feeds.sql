-- What programs may ask for: keys of the API, and addresses that give a view of a form's responses.

-- Of a key only a digest is kept. `rights` are what it may do; with a form, only that.
CREATE TABLE api_key (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    form_id uuid REFERENCES form ON DELETE CASCADE,
    name text NOT NULL,
    digest bytea NOT NULL UNIQUE,
    rights text[] NOT NULL,
    made_by uuid REFERENCES person ON DELETE SET NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    last_used_at timestamptz,
    ended_at timestamptz
);
CREATE INDEX api_key_team ON api_key (team_id);

-- A live feed of a view: found by the digest of its secret, which is kept sealed so that it can be copied again.
CREATE TABLE feed (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    view_id uuid NOT NULL REFERENCES response_view ON DELETE CASCADE,
    digest bytea NOT NULL UNIQUE,
    sealed bytea NOT NULL,
    made_by uuid REFERENCES person ON DELETE SET NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    last_fetched_at timestamptz,
    fetches bigint NOT NULL DEFAULT 0
);
CREATE INDEX feed_form ON feed (form_id);
CREATE INDEX feed_view ON feed (view_id);
