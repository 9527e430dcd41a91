-- What came back. Answers are one JSON column by block id, so that a new field type needs no migration.
CREATE TABLE response (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    number integer NOT NULL,
    edition integer NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now(),
    answers jsonb NOT NULL,
    computed jsonb NOT NULL,
    idempotency_key text NOT NULL,
    content_digest bytea NOT NULL,
    PRIMARY KEY (form_id, number),
    UNIQUE (form_id, idempotency_key),
    FOREIGN KEY (form_id, edition) REFERENCES edition (form_id, number)
);
CREATE INDEX response_newest ON response (form_id, received_at DESC, number DESC);

-- Numbers are handed out by the row of the form, without gaps and without a lock on the whole table.
ALTER TABLE form ADD COLUMN last_response integer NOT NULL DEFAULT 0;
