-- Files in the columns of tables; their content lies in the folder of files under this id. What a record has had stays
-- as long as the record; a file of none is deleted after a while.
CREATE TABLE record_file (
    id uuid PRIMARY KEY,
    table_id uuid NOT NULL,
    number integer NOT NULL,
    name text NOT NULL,
    media_type text NOT NULL,
    size bigint NOT NULL CHECK (size > 0),
    has_thumbnail boolean NOT NULL,
    stored_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX record_file_of ON record_file (table_id, number);
