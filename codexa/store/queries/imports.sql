-- name: insert_import
-- Takes up the lines of a file for a form of the team.
INSERT INTO file_import (form_id, person_id, name, edition, lines, count)
SELECT form.id, %(person)s, %(name)s, %(edition)s, %(lines)s, %(count)s FROM form
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
RETURNING id;

-- name: insert_table_import
-- Takes up the lines of a file for a table.
INSERT INTO file_import (table_id, person_id, name, key_column, lines, count)
VALUES (%(table)s, %(person)s, %(name)s, %(key_column)s, %(lines)s, %(count)s) RETURNING id;

-- name: find_import
-- What is being taken in into a form, with all its lines.
SELECT file_import.form_id, file_import.edition, file_import.lines, file_import.place
FROM file_import JOIN form ON form.id = file_import.form_id
WHERE file_import.id = %(import)s AND file_import.state = 'waiting' AND form.deleted_at IS NULL;

-- name: find_table_import
-- What is being taken in into a table, with all its lines.
SELECT file_import.table_id, data_table.team_id, file_import.person_id, file_import.key_column, file_import.lines
FROM file_import JOIN data_table ON data_table.id = file_import.table_id
WHERE file_import.id = %(import)s AND file_import.state = 'waiting' AND data_table.deleted_at IS NULL;

-- name: lock_import
-- How far it has come, kept from others until the transaction ends.
SELECT place FROM file_import WHERE id = %(import)s AND state = 'waiting' FOR UPDATE;

-- name: end_part
-- Notes that lines were gone through; with the last of them all lines are forgotten.
UPDATE file_import SET place = place + %(gone)s, kept = kept + %(kept)s, refused = refused || %(refused)s::jsonb,
    state = CASE WHEN place + %(gone)s >= count THEN 'done' ELSE state END,
    ended_at = CASE WHEN place + %(gone)s >= count THEN now() END,
    lines = CASE WHEN place + %(gone)s >= count THEN '[]' ELSE lines END
WHERE id = %(import)s;

-- name: stop_import
-- Takes in nothing more into a form or a table of the team; what is in stays.
UPDATE file_import SET state = 'stopped', ended_at = now(), lines = '[]'
WHERE id = %(import)s AND state = 'waiting' AND coalesce(form_id, table_id) = %(into)s AND (
    EXISTS (SELECT FROM form WHERE form.id = form_id AND form.team_id = %(team)s)
    OR EXISTS (SELECT FROM data_table WHERE data_table.id = table_id AND data_table.team_id = %(team)s))
RETURNING id;

-- name: list_imports
-- What was taken in of late into a form or a table of the team, newest first.
SELECT file_import.id, file_import.name, file_import.count, file_import.place, file_import.kept, file_import.refused,
    file_import.state, person.name AS person, file_import.created_at
FROM file_import LEFT JOIN person ON person.id = file_import.person_id
WHERE (form_id = %(into)s AND EXISTS (
        SELECT FROM form WHERE form.id = %(into)s AND form.team_id = %(team)s AND form.deleted_at IS NULL))
    OR (table_id = %(into)s AND EXISTS (SELECT FROM data_table
        WHERE data_table.id = %(into)s AND data_table.team_id = %(team)s AND data_table.deleted_at IS NULL))
ORDER BY file_import.created_at DESC LIMIT 10;

-- name: forget_imports
-- Forgets what ended so many days ago.
DELETE FROM file_import WHERE ended_at < now() - make_interval(days => %(days)s);
