-- Answers that a visitor goes on with later, as they were entered, for whoever has their link; the response that they
-- belong to has its number and the stage "kept". Of the link only a digest is here.
CREATE TABLE kept_answers (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    digest bytea NOT NULL UNIQUE,
    entered jsonb NOT NULL,
    standing jsonb NOT NULL,
    visit text NOT NULL,
    version integer NOT NULL DEFAULT 1,
    kept_at timestamptz NOT NULL DEFAULT now(),
    until timestamptz NOT NULL,
    mails integer NOT NULL DEFAULT 0,
    PRIMARY KEY (form_id, number),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
CREATE INDEX kept_answers_until ON kept_answers (until);
CREATE INDEX kept_answers_visit ON kept_answers (form_id, visit);

-- Numbers of responses that are gone for ever: as many fewer have come than the last number says.
ALTER TABLE response_counter ADD COLUMN gone integer NOT NULL DEFAULT 0;
CREATE INDEX response_not_complete ON response (form_id) WHERE stage <> 'complete';
