-- What was done in a team that others may have to answer for; written with what it tells of, and never changed.
CREATE TABLE audit_entry (
    id bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    at timestamptz NOT NULL DEFAULT now(),
    -- Who did it, as they were called then; nobody where it was a member or the clock.
    person_id uuid REFERENCES person ON DELETE SET NULL,
    person_name text NOT NULL,
    kind text NOT NULL,
    about jsonb NOT NULL DEFAULT '{}'
);
CREATE INDEX audit_entry_of_team ON audit_entry (team_id, id DESC);
CREATE INDEX audit_entry_of_kind ON audit_entry (team_id, kind, id DESC);
