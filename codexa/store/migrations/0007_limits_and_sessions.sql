-- What keeps one stranger from stopping or guessing: rates that hold across processes, tries to sign in, idle sessions.

-- Nothing is lost with it but a count.
CREATE UNLOGGED TABLE rate (
    subject text PRIMARY KEY,
    count bigint NOT NULL,
    ends_at timestamptz NOT NULL
);
CREATE INDEX rate_ended ON rate (ends_at);

DROP TABLE failed_sign_in;
CREATE TABLE sign_in_try (
    subject text PRIMARY KEY,
    failures integer NOT NULL,
    tried_at timestamptz NOT NULL,
    next_at timestamptz NOT NULL
);
-- From where somebody has signed in before: strangers elsewhere can't keep them out there.
CREATE TABLE known_network (
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    network text NOT NULL,
    seen_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (person_id, network)
);

-- An e-mail as it is compared, folded once and by one function: the application's.
ALTER TABLE person ADD COLUMN email_folded text;
UPDATE person SET email_folded = lower(email);
ALTER TABLE person ALTER COLUMN email_folded SET NOT NULL;
DROP INDEX person_email;
CREATE UNIQUE INDEX person_email ON person (email_folded);

ALTER TABLE session ADD COLUMN seen_at timestamptz NOT NULL DEFAULT now();

-- An upload belongs to a visit, and is counted against the network that it came from until a response names it.
ALTER TABLE upload ADD COLUMN visit text NOT NULL DEFAULT '', ADD COLUMN network text NOT NULL DEFAULT '';
DROP INDEX upload_unclaimed;
CREATE INDEX upload_unclaimed_of_form ON upload (form_id) INCLUDE (size) WHERE response_number IS NULL;
CREATE INDEX upload_unclaimed_of_network ON upload (network) INCLUDE (size) WHERE response_number IS NULL;
CREATE INDEX upload_unclaimed ON upload (stored_at) WHERE response_number IS NULL;
