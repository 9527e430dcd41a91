-- Working with what comes back: the team's own facets of a response, saved views, and ledgers.

ALTER TABLE form ADD COLUMN statuses jsonb NOT NULL DEFAULT '[]';
ALTER TABLE response ADD COLUMN tags text[] NOT NULL DEFAULT '{}',
    ADD COLUMN person_id uuid REFERENCES person ON DELETE SET NULL;

-- What a view of a form's responses is: its filter, columns, order and kind, by name. One may be what opens first.
CREATE TABLE response_view (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    name text NOT NULL,
    content jsonb NOT NULL,
    opens_first boolean NOT NULL DEFAULT false,
    made_by uuid REFERENCES person ON DELETE SET NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (form_id, name)
);
CREATE UNIQUE INDEX response_view_first ON response_view (form_id) WHERE opens_first;

-- A form's ledger: its responses once more, typed, in a table of their own that is made from them and can be made anew.
-- `columns` says which of its columns holds what, `upto` is the last number that is in it, `wanted` which columns are
-- filtered or sorted by and shall have an index, `filling_since` when a job was asked to take up more, `settled` the last
-- change that was taken up.
CREATE SCHEMA ledgers;
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE TABLE ledger (
    form_id uuid PRIMARY KEY REFERENCES form ON DELETE CASCADE,
    columns jsonb NOT NULL DEFAULT '[]',
    upto integer NOT NULL DEFAULT 0,
    wanted text[] NOT NULL DEFAULT '{}',
    filling_since timestamptz,
    settled bigint NOT NULL DEFAULT 0
);
-- Responses that changed after they came, so that ledgers take them up anew. Rows are only added, never waited for.
CREATE TABLE ledger_due (
    id bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ledger_due_form ON ledger_due (form_id, id);

CREATE FUNCTION note_for_ledger() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    INSERT INTO ledger_due (form_id, number) VALUES (OLD.form_id, OLD.number);
    RETURN NULL;
END
$$;
CREATE TRIGGER response_changed AFTER UPDATE ON response
FOR EACH ROW WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION note_for_ledger();
CREATE TRIGGER response_gone AFTER DELETE ON response FOR EACH ROW EXECUTE FUNCTION note_for_ledger();

-- Few responses have tags: those that have are found without the others.
CREATE INDEX response_tagged ON response (form_id) WHERE tags <> '{}';
