-- Follow-ups on a day to come, what other systems were sent and answered, and jobs that follow from no response.

-- When a run is done; null for at once.
ALTER TABLE run ADD COLUMN due_at timestamptz;

CREATE OR REPLACE VIEW open_run AS
SELECT run.id, run.form_id, run.number, run.follow_up, run.name, run.moment, run.again, run.kind, run.content, run.state,
    run.tries, run.result, run.created_at, run.ended_at, run.asked_by, run.due_at
FROM run JOIN response ON (response.form_id, response.number) = (run.form_id, run.number)
WHERE response.stage <> 'removed'
    AND ((run.state = 'waiting' AND (run.due_at IS NULL OR run.due_at < now()))
        OR (run.state = 'failed' AND run.ended_at > now() - interval '30 days'
            AND NOT EXISTS (
                SELECT FROM run AS later
                WHERE (later.form_id, later.number, later.follow_up, later.moment)
                        = (run.form_id, run.number, run.follow_up, run.moment)
                    AND later.again > run.again
            )));

-- A mail's look was its accent alone, and nothing went along with it.
UPDATE run SET content = (content - 'accent') || jsonb_build_object(
    'brand', jsonb_build_object(
        'accent', content ->> 'accent', 'ground', '#F2F3F5', 'paper', '#FFFFFF', 'ink', '#1F2630',
        'letters', 'serif', 'logo', '', 'logo_alternative', ''
    ),
    'locale', 'en', 'files', '[]'::jsonb, 'pdf', NULL
)
WHERE kind = 'email';

-- A job carries out the runs of one moment together; those that wait had one each.
UPDATE procrastinate_jobs SET args = jsonb_build_object('runs', jsonb_build_array(args -> 'run'))
WHERE task_name = 'carry_out' AND args ? 'run';

-- Each try of a webhook. The request's body is the run's own; `reply` is null where none came.
CREATE TABLE delivery (
    run_id bigint NOT NULL REFERENCES run ON DELETE CASCADE,
    try integer NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    request jsonb NOT NULL,
    reply jsonb,
    PRIMARY KEY (run_id, try)
);

-- When the team was last told that follow-ups of a form did not work.
ALTER TABLE form ADD COLUMN failures_told_at timestamptz;

-- A job that follows from no response: a notice by mail, the daily tidying. `team_id` is whose owners may see it.
CREATE TABLE errand (
    id bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    team_id uuid REFERENCES team ON DELETE CASCADE,
    kind text NOT NULL,
    about jsonb NOT NULL DEFAULT '{}',
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'done', 'failed')),
    tries integer NOT NULL DEFAULT 0,
    result text NOT NULL DEFAULT '',
    created_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz
);
CREATE INDEX errand_of_team ON errand (team_id, id);
CREATE INDEX errand_ended ON errand (ended_at);

-- Only digests are kept: who reads these tables can't use a link.
CREATE TABLE password_link (
    token_digest bytea PRIMARY KEY,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    expires_at timestamptz NOT NULL
);
CREATE INDEX password_link_person ON password_link (person_id);

-- Somebody's new address, until it was confirmed at the old one and at the new one.
CREATE TABLE address_change (
    person_id uuid PRIMARY KEY REFERENCES person ON DELETE CASCADE,
    email text NOT NULL,
    email_folded text NOT NULL,
    old_digest bytea NOT NULL DEFAULT '',
    new_digest bytea NOT NULL DEFAULT '',
    old_confirmed boolean NOT NULL DEFAULT false,
    new_confirmed boolean NOT NULL DEFAULT false,
    expires_at timestamptz NOT NULL
);
