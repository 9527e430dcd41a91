-- What is done to many responses at once, by a job that can die and go on; and how long responses are kept.

-- `numbers` are those that were chosen when it was asked for, `place` how many of them were gone through, `changed`
-- those to which it happened. It is done by its own transactions, a part at a time.
CREATE TABLE bulk (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    person_id uuid REFERENCES person ON DELETE SET NULL,
    does text NOT NULL,
    value text NOT NULL DEFAULT '',
    numbers integer[] NOT NULL,
    place integer NOT NULL DEFAULT 0,
    changed integer[] NOT NULL DEFAULT '{}',
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'done', 'stopped')),
    created_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz
);
CREATE INDEX bulk_form ON bulk (form_id, created_at);

-- After so many days responses are anonymised or removed by themselves; empty for as long as anybody wants.
ALTER TABLE form ADD COLUMN retention jsonb NOT NULL DEFAULT '{}';
