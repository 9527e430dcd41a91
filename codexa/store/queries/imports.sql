-- name: insert_import
-- Takes up the lines of a table for a form of the team.
INSERT INTO response_import (form_id, person_id, name, edition, lines, count)
SELECT form.id, %(person)s, %(name)s, %(edition)s, %(lines)s, %(count)s FROM form
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
RETURNING id;

-- name: find_import
-- What is being taken in, with all its lines.
SELECT response_import.form_id, response_import.edition, response_import.lines, response_import.place
FROM response_import JOIN form ON form.id = response_import.form_id
WHERE response_import.id = %(import)s AND response_import.state = 'waiting' AND form.deleted_at IS NULL;

-- name: lock_import
-- How far it has come, kept from others until the transaction ends.
SELECT place FROM response_import WHERE id = %(import)s AND state = 'waiting' FOR UPDATE;

-- name: end_part
-- Notes that lines were gone through; with the last of them all lines are forgotten.
UPDATE response_import SET place = place + %(gone)s, kept = kept + %(kept)s, refused = refused || %(refused)s::jsonb,
    state = CASE WHEN place + %(gone)s >= count THEN 'done' ELSE state END,
    ended_at = CASE WHEN place + %(gone)s >= count THEN now() END,
    lines = CASE WHEN place + %(gone)s >= count THEN '[]' ELSE lines END
WHERE id = %(import)s;

-- name: stop_import
-- Takes in nothing more; what is in stays.
UPDATE response_import SET state = 'stopped', ended_at = now(), lines = '[]' FROM form
WHERE response_import.id = %(import)s AND response_import.state = 'waiting' AND form.id = response_import.form_id
    AND form.team_id = %(team)s AND form.id = %(form)s
RETURNING response_import.id;

-- name: list_imports
-- What was taken in of late into a form of the team, newest first.
SELECT response_import.id, response_import.name, response_import.count, response_import.place, response_import.kept,
    response_import.refused, response_import.state, person.name AS person, response_import.created_at
FROM response_import JOIN form ON form.id = response_import.form_id
    LEFT JOIN person ON person.id = response_import.person_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY response_import.created_at DESC LIMIT 10;

-- name: forget_imports
-- Forgets what ended so many days ago.
DELETE FROM response_import WHERE ended_at < now() - make_interval(days => %(days)s);
