-- What a response followed from: the pages that applied, and the confirmation.
ALTER TABLE response ADD COLUMN path text[] NOT NULL DEFAULT '{}';
ALTER TABLE response ADD COLUMN confirmation text;

-- Files that visitors sent; their content lies in the folder of files under this id. One that no response
-- names after a while is deleted.
CREATE TABLE upload (
    id uuid PRIMARY KEY,
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    block_id text NOT NULL,
    name text NOT NULL,
    media_type text NOT NULL,
    size bigint NOT NULL CHECK (size > 0),
    has_thumbnail boolean NOT NULL,
    stored_at timestamptz NOT NULL DEFAULT now(),
    response_number integer,
    FOREIGN KEY (form_id, response_number) REFERENCES response (form_id, number)
);
CREATE INDEX upload_of_response ON upload (form_id, response_number);
CREATE INDEX upload_unclaimed ON upload (stored_at) WHERE response_number IS NULL;
