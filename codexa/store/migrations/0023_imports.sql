-- Responses that come from a table: its lines until they are in, and which of them were refused, and why.

CREATE TABLE response_import (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    person_id uuid REFERENCES person ON DELETE SET NULL,
    name text NOT NULL,
    edition integer NOT NULL,
    -- {"line", "answers" by key, "received"}; none once it has ended.
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
CREATE INDEX response_import_form ON response_import (form_id, created_at);
