-- Records that come from a file: its lines until they are in, and which of them were refused, and why.
CREATE TABLE table_import (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    table_id uuid NOT NULL REFERENCES data_table ON DELETE CASCADE,
    person_id uuid REFERENCES person ON DELETE SET NULL,
    name text NOT NULL,
    -- The column by which a line means a record that is there, "" for none.
    key_column text NOT NULL,
    -- {"line", "cells" by column id}; none once it has ended.
    lines jsonb NOT NULL,
    count integer NOT NULL,
    place integer NOT NULL DEFAULT 0,
    kept integer NOT NULL DEFAULT 0,
    -- {"line", "message"}
    refused jsonb NOT NULL DEFAULT '[]',
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'done', 'stopped')),
    created_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz
);
CREATE INDEX table_import_table ON table_import (table_id, created_at);
