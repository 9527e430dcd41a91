-- Which responses made or changed a record, by their follow-ups.
CREATE TABLE record_origin (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    response_number integer NOT NULL,
    kind text NOT NULL CHECK (kind IN ('made', 'changed')),
    at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (table_id, number, form_id, response_number),
    FOREIGN KEY (table_id, number) REFERENCES record ON DELETE CASCADE
);
CREATE INDEX record_origin_response ON record_origin (form_id, response_number);
