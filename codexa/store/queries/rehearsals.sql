-- name: insert_team
-- Makes the team of a rehearsal, which nobody is in; no row where that person has one of the form.
INSERT INTO team (slug, name, rehearsal_of, rehearsed_by)
SELECT %(slug)s, team.name, form.id, %(person)s FROM form JOIN team ON team.id = form.team_id WHERE form.id = %(form)s
ON CONFLICT (rehearsal_of, rehearsed_by) DO NOTHING RETURNING id;

-- name: delete_team
-- Takes a person's rehearsal of a form away, with all that it made; the uploads in it are named for their files.
WITH gone AS (
    SELECT upload.id FROM upload JOIN form ON form.id = upload.form_id JOIN team ON team.id = form.team_id
    WHERE team.rehearsal_of = %(form)s AND team.rehearsed_by = %(person)s
), ended AS (
    DELETE FROM team WHERE rehearsal_of = %(form)s AND rehearsed_by = %(person)s
)
SELECT id FROM gone;

-- name: delete_old
-- Takes rehearsals away that were begun so many days ago.
WITH gone AS (
    SELECT upload.id FROM upload JOIN form ON form.id = upload.form_id JOIN team ON team.id = form.team_id
    WHERE team.rehearsal_of IS NOT NULL AND team.created_at < now() - make_interval(days => %(days)s)
), ended AS (
    DELETE FROM team WHERE rehearsal_of IS NOT NULL AND created_at < now() - make_interval(days => %(days)s)
)
SELECT id FROM gone;

-- name: find
-- A person's rehearsal of a form: its team, its own form, since when, how many days its clock was moved on, and as whom.
SELECT team.id AS team_id, team.slug AS team_slug, form.id AS form_id, form.slug, team.created_at,
    team.rehearsed_days AS days, team.rehearsed_as AS filled_in_by
FROM team JOIN form ON form.team_id = team.id
WHERE team.rehearsal_of = %(form)s AND team.rehearsed_by = %(person)s;

-- name: is_rehearsal
-- Whether a team is that of a rehearsal.
SELECT EXISTS (SELECT FROM team WHERE id = %(team)s AND rehearsal_of IS NOT NULL) AS is_rehearsal;

-- name: numbers
-- The numbers of what was handed in, the latest first.
SELECT number FROM response WHERE form_id = %(form)s AND stage <> 'removed' ORDER BY number DESC LIMIT %(most)s;

-- name: open_approvals
-- What is to be decided about a response, at which step.
SELECT approval.id, approval.number, approval.name, approval.subject, approval.at_step AS step, step.name AS step_name
FROM approval JOIN approval_step AS step ON step.approval_id = approval.id AND step.position = approval.at_step
WHERE approval.form_id = %(form)s AND approval.state = 'asked' ORDER BY approval.asked_at, approval.id;

-- name: move_runs
-- Lets what is to be done on a day be due so many days earlier.
UPDATE run SET due_at = due_at - make_interval(days => %(days)s)
WHERE form_id = %(form)s AND state = 'waiting' AND due_at IS NOT NULL;

-- name: move_jobs
-- The same of the jobs that do it.
UPDATE procrastinate_jobs SET scheduled_at = scheduled_at - make_interval(days => %(days)s)
WHERE status = 'todo' AND task_name = 'carry_out' AND scheduled_at IS NOT NULL
    AND (args -> 'runs' ->> 0)::bigint IN (SELECT id FROM run WHERE form_id = %(form)s AND state = 'waiting');

-- name: move_payments
-- Lets payments run out so many days earlier.
UPDATE payment SET due_until = due_until - make_interval(days => %(days)s) WHERE form_id = %(form)s AND state = 'due';

-- name: move_approvals
-- Lets the time of a decision be over so many days earlier.
UPDATE approval_step SET due_at = due_at - make_interval(days => %(days)s)
FROM approval WHERE approval.id = approval_step.approval_id AND approval.form_id = %(form)s;

-- name: move_kept
-- Lets what is kept for later be forgotten so many days earlier.
UPDATE kept_answers SET until = until - make_interval(days => %(days)s) WHERE form_id = %(form)s;

-- name: count_days
-- Notes how far the clock was moved on.
UPDATE team SET rehearsed_days = rehearsed_days + %(days)s
WHERE rehearsal_of = %(original)s AND rehearsed_by = %(person)s;

-- name: fill_in_as
-- Sets as whom a rehearsal is filled in.
UPDATE team SET rehearsed_as = %(number)s WHERE rehearsal_of = %(original)s AND rehearsed_by = %(person)s;
