-- Files that are made of responses while people work on: how far each has come. The file itself lies beside uploads.
CREATE TABLE export_file (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    person_id uuid REFERENCES person ON DELETE SET NULL,
    name text NOT NULL,
    about jsonb NOT NULL,
    rows integer NOT NULL DEFAULT 0,
    size bigint NOT NULL DEFAULT 0,
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'done', 'failed')),
    result text NOT NULL DEFAULT '',
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX export_file_form ON export_file (form_id);
