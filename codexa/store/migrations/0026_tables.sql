-- Tables of the team's data, and their records.
CREATE EXTENSION IF NOT EXISTS btree_gin;

CREATE TABLE data_table (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    name text NOT NULL,
    definition jsonb NOT NULL,
    revision integer NOT NULL DEFAULT 1,
    last_number integer NOT NULL DEFAULT 0,
    created_at timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now(),
    deleted_at timestamptz
);
CREATE INDEX data_table_team ON data_table (team_id);

-- What was removed stays for a while: it can come back.
CREATE TABLE record (
    table_id uuid NOT NULL REFERENCES data_table ON DELETE CASCADE,
    number integer NOT NULL,
    kept jsonb NOT NULL,
    name text NOT NULL,
    words text NOT NULL,
    revision integer NOT NULL DEFAULT 1,
    created_at timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now(),
    removed_at timestamptz,
    PRIMARY KEY (table_id, number)
);
CREATE INDEX record_there ON record (table_id, number) WHERE removed_at IS NULL;
CREATE INDEX record_words ON record USING gin (table_id, words gin_trgm_ops) WHERE removed_at IS NULL;

CREATE TABLE record_once (
    table_id uuid NOT NULL,
    column_id text NOT NULL,
    value text NOT NULL,
    number integer NOT NULL,
    PRIMARY KEY (table_id, column_id, value),
    FOREIGN KEY (table_id, number) REFERENCES record ON DELETE CASCADE
);
CREATE INDEX record_once_number ON record_once (table_id, number);

CREATE TABLE record_change (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    table_id uuid NOT NULL,
    number integer NOT NULL,
    kind text NOT NULL CHECK (kind IN ('changed', 'removed', 'brought back')),
    before jsonb,
    person_id uuid REFERENCES person ON DELETE SET NULL,
    at timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (table_id, number) REFERENCES record ON DELETE CASCADE
);
CREATE INDEX record_change_number ON record_change (table_id, number);
