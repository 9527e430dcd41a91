-- Groups of a team: people of it and members are in any of them. Formulas know a group by its code, which stays.
CREATE TABLE team_group (
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    code text NOT NULL CHECK (code <> ''),
    name text NOT NULL CHECK (name <> ''),
    PRIMARY KEY (team_id, code)
);
CREATE UNIQUE INDEX team_group_name ON team_group (team_id, lower(name));

CREATE TABLE person_in_group (
    team_id uuid NOT NULL,
    code text NOT NULL,
    person_id uuid NOT NULL,
    PRIMARY KEY (team_id, code, person_id),
    FOREIGN KEY (team_id, code) REFERENCES team_group ON DELETE CASCADE,
    FOREIGN KEY (team_id, person_id) REFERENCES membership (team_id, person_id) ON DELETE CASCADE
);
CREATE INDEX person_in_group_person ON person_in_group (team_id, person_id);

-- The table of a team whose records are its members: those who fill in and have an account.
ALTER TABLE team ADD COLUMN members_table uuid REFERENCES data_table ON DELETE SET NULL;

-- What a member's record has not: what they sign in with, and whether the address was shown to be theirs.
CREATE TABLE member (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    table_id uuid NOT NULL,
    number integer NOT NULL,
    password_hash text NOT NULL DEFAULT '',
    confirmed_at timestamptz,
    invited_at timestamptz,
    UNIQUE (table_id, number),
    FOREIGN KEY (table_id, number) REFERENCES record (table_id, number) ON DELETE CASCADE
);

-- Members' sessions, apart from those of the team's people: they open nothing of the workbench.
CREATE TABLE member_session (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    token_digest bytea NOT NULL UNIQUE,
    member_id uuid NOT NULL REFERENCES member ON DELETE CASCADE,
    csrf_token text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    seen_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL
);
CREATE INDEX member_session_member ON member_session (member_id);

-- Links by which a member signs in once, or confirms another address; the page that asked knows `asked_digest` and may
-- take the code that stands beside the link instead.
CREATE TABLE member_link (
    token_digest bytea PRIMARY KEY,
    kind text NOT NULL CHECK (kind IN ('sign in', 'address')),
    member_id uuid NOT NULL REFERENCES member ON DELETE CASCADE,
    email text NOT NULL DEFAULT '',
    back text NOT NULL DEFAULT '',
    asked_digest bytea UNIQUE,
    code_mark text NOT NULL DEFAULT '',
    tries integer NOT NULL DEFAULT 0,
    made_at timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz NOT NULL
);
CREATE INDEX member_link_member ON member_link (member_id);

-- Whose a response is: a member's, or somebody's of the team; nobody's where nobody was signed in.
ALTER TABLE response
    ADD COLUMN member_id uuid REFERENCES member ON DELETE SET NULL,
    ADD COLUMN filled_by uuid REFERENCES person ON DELETE SET NULL;
CREATE INDEX response_member ON response (member_id) WHERE member_id IS NOT NULL;
CREATE INDEX response_filled_by ON response (filled_by) WHERE filled_by IS NOT NULL;

-- By which a member goes on with what they kept, beside the private link.
ALTER TABLE kept_answers ADD COLUMN member_digest bytea;
CREATE INDEX kept_answers_member ON kept_answers (member_digest) WHERE member_digest IS NOT NULL;
