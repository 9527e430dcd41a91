-- name: waiting
-- What waits for a person in each form of a team: responses that are held, follow-ups that did not work, and what that
-- person has in hand, but for what has the last of the form's statuses.
SELECT form.id AS form_id, form.name, held.count AS held, failed.count AS failed, mine.count AS mine
FROM form
CROSS JOIN LATERAL (SELECT count(*)::integer AS count FROM response
    WHERE response.form_id = form.id AND response.held AND response.stage = 'waiting') AS held
CROSS JOIN LATERAL (SELECT count(*)::integer AS count FROM open_run
    WHERE open_run.form_id = form.id AND open_run.state = 'failed') AS failed
CROSS JOIN LATERAL (SELECT count(*)::integer AS count FROM response
    WHERE response.person_id = %(person)s AND response.form_id = form.id AND response.stage = 'complete'
        AND coalesce(response.status, '') IS DISTINCT FROM form.statuses -> -1 ->> 'code') AS mine
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL
    AND NOT is_hidden(form.id, form.team_id, %(person)s)
ORDER BY form.name;

-- name: came
-- How many responses came to each form of a team since a moment.
SELECT response.form_id, count(*)::integer AS count
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.stage = 'complete' AND NOT response.test
    AND response.received_at > %(since)s
GROUP BY response.form_id;

-- name: digest
-- How often a person is told of a team.
SELECT digest FROM membership WHERE team_id = %(team)s AND person_id = %(person)s;

-- name: set_digest
-- Tells a person of a team so often from now on.
UPDATE membership SET digest = %(digest)s, digest_until = now()
WHERE team_id = %(team)s AND person_id = %(person)s;

-- name: take_due
-- Who is to be told now, and of what came since when; each is told once, whoever asks.
WITH due AS (
    SELECT team_id, person_id, digest_until FROM membership
    WHERE digest = 'daily' AND digest_until < now() - interval '20 hours'
        OR digest = 'weekly' AND digest_until < now() - interval '6 days 20 hours'
    FOR UPDATE SKIP LOCKED
)
UPDATE membership SET digest_until = now() FROM due
WHERE (membership.team_id, membership.person_id) = (due.team_id, due.person_id)
RETURNING membership.team_id, membership.person_id, due.digest_until AS since;
