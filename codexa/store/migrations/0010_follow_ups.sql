-- What follows from an event of a response: worked out when it happened, carried out once by a job.
CREATE TABLE run (
    id bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    follow_up text NOT NULL,
    name text NOT NULL,
    moment text NOT NULL,
    -- 0 is the run that the event set off; every further one was asked for by a person.
    again integer NOT NULL DEFAULT 0,
    kind text NOT NULL,
    content jsonb NOT NULL,
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'done', 'failed')),
    tries integer NOT NULL DEFAULT 0,
    result text NOT NULL DEFAULT '',
    asked_by uuid REFERENCES person ON DELETE SET NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz,
    UNIQUE (form_id, number, follow_up, moment, again),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
CREATE INDEX run_failed ON run (form_id) WHERE state = 'failed';
