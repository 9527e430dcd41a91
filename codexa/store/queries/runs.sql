-- name: insert_runs
-- Keeps what follows from an event of a response; what was kept before stays as it is. For what is done at one moment
-- there is one job, written as procrastinate's own function writes it, without calling that.
WITH kept AS (
    INSERT INTO run (form_id, number, follow_up, name, moment, kind, content, again, due_at, asked_by)
    SELECT %(form)s, %(number)s, due.follow_up, due.name, due.moment, due.kind, due.content, due.again, due.at,
        %(asked_by)s
    FROM jsonb_to_recordset(%(due)s)
        AS due (follow_up text, name text, moment text, kind text, content jsonb, again integer, at timestamptz)
    ON CONFLICT (form_id, number, follow_up, moment, again) DO NOTHING
    RETURNING id, due_at
), together AS (
    SELECT jsonb_build_object('runs', jsonb_agg(id ORDER BY id)) AS args, due_at FROM kept GROUP BY due_at
)
INSERT INTO procrastinate_jobs (queue_name, task_name, args, scheduled_at)
SELECT 'default', %(task)s, args, due_at FROM together;

-- name: take_run
-- A run that is still to be done; nothing where it has ended, or its response or form was removed.
SELECT run.id, run.form_id, run.number, run.follow_up, run.name, run.moment, run.again, run.kind, run.content,
    team.rehearsal_of IS NOT NULL AS rehearsed
FROM run JOIN response ON (response.form_id, response.number) = (run.form_id, run.number)
    JOIN form ON form.id = run.form_id JOIN team ON team.id = form.team_id
WHERE run.id = %(run)s AND run.state = 'waiting' AND form.deleted_at IS NULL AND response.stage <> 'removed';

-- name: lock_run
-- A run that is still to be done, which nobody else does until the transaction ends.
SELECT id FROM run WHERE id = %(run)s AND state = 'waiting' FOR UPDATE;

-- name: count_try
-- Notes that a run is tried now, before anything leaves.
UPDATE run SET tries = tries + 1 WHERE id = %(run)s AND state = 'waiting' RETURNING tries;

-- name: count_mails
-- How many mails of a form have left within the last hour; no more are counted than matter.
SELECT count(*) FROM (
    SELECT FROM run
    WHERE form_id = %(form)s AND kind = 'email' AND state = 'done' AND ended_at > now() - interval '1 hour'
    LIMIT %(most)s
) AS sent;

-- name: end_run
-- Notes how a run ended, or why it goes on waiting.
UPDATE run SET state = %(state)s, result = %(result)s,
    ended_at = CASE WHEN %(state)s = 'waiting' THEN NULL ELSE now() END
WHERE id = %(run)s AND state = 'waiting';

-- name: add_event
-- Notes something that happened to a response; the second arrival of the same news does nothing.
INSERT INTO event (form_id, number, kind, key, who, data)
VALUES (%(form)s, %(number)s, %(kind)s, %(key)s, 'clock', %(data)s)
ON CONFLICT (form_id, number, kind, key) DO NOTHING;

-- name: list_runs
-- What follows from a response of a form of the team, in order.
SELECT run.id, run.form_id, run.number, run.follow_up, run.name, run.moment, run.again, run.kind, run.content, run.state,
    run.tries, run.result, run.created_at, run.ended_at, run.due_at, person.name AS asked_by
FROM run JOIN form ON form.id = run.form_id LEFT JOIN person ON person.id = run.asked_by
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND run.number = %(number)s
ORDER BY run.id;

-- name: list_open_runs
-- What waits and what did not work, of a form of the team: first what did not work, then what waits longest.
SELECT open_run.id, open_run.form_id, open_run.number, open_run.follow_up, open_run.name, open_run.moment,
    open_run.again, open_run.kind, open_run.content, open_run.state, open_run.tries, open_run.result,
    open_run.created_at, open_run.ended_at, open_run.due_at, person.name AS asked_by
FROM open_run JOIN form ON form.id = open_run.form_id LEFT JOIN person ON person.id = open_run.asked_by
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY open_run.state, open_run.id
LIMIT %(most)s;

-- name: last_run
-- A run of a response of the team, and how often it was asked for again.
SELECT run.id, run.form_id, run.number, run.follow_up, run.name, run.moment, run.kind, run.content,
    (SELECT max(other.again) FROM run AS other
        WHERE (other.form_id, other.number, other.follow_up, other.moment)
            = (run.form_id, run.number, run.follow_up, run.moment)) AS again
FROM run JOIN form ON form.id = run.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND run.id = %(run)s;

-- name: last_runs
-- The last run of a follow-up for each of some responses that are there, and how often it was asked for again.
SELECT DISTINCT ON (run.number) run.id, run.form_id, run.number, run.follow_up, run.name, run.moment, run.again,
    run.kind, run.content
FROM run JOIN form ON form.id = run.form_id
    JOIN response ON (response.form_id, response.number) = (run.form_id, run.number)
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND run.follow_up = %(follow_up)s
    AND run.number = ANY(%(numbers)s) AND response.stage <> 'removed'
ORDER BY run.number, run.id DESC;

-- name: tell_failure
-- Notes that the team is told that follow-ups of a form did not work; nothing where it was told of late.
UPDATE form SET failures_told_at = now()
WHERE id = %(form)s AND (failures_told_at IS NULL OR failures_told_at < now() - make_interval(hours => %(hours)s))
RETURNING team_id;

-- name: list_failures
-- What did not work of a form and was not done again since, latest first, with whom to tell.
SELECT open_run.number, open_run.name, open_run.result FROM open_run
WHERE open_run.form_id = %(form)s AND open_run.state = 'failed'
ORDER BY open_run.ended_at DESC
LIMIT %(most)s;

-- name: insert_delivery
-- Keeps what another system was sent at a try, and what it answered.
INSERT INTO delivery (run_id, try, request, reply) VALUES (%(run)s, %(try)s, %(request)s, %(reply)s)
ON CONFLICT (run_id, try) DO UPDATE SET request = EXCLUDED.request, reply = EXCLUDED.reply, at = now();

-- name: list_deliveries
-- The tries of a run, first to last.
SELECT try, at, request, reply FROM delivery WHERE run_id = %(run)s ORDER BY try;

-- name: withdraw_days
-- What was to be done on a day that is still to come is not done any more.
UPDATE run SET state = 'done', result = %(why)s, ended_at = now()
WHERE form_id = %(form)s AND number = %(number)s AND state = 'waiting' AND due_at > now()
    AND (moment = 'day' OR moment LIKE 'day %%');
