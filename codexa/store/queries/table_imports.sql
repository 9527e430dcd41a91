-- name: insert_import
-- Takes up the lines of a file for a table.
INSERT INTO table_import (table_id, person_id, name, key_column, lines, count)
VALUES (%(table)s, %(person)s, %(name)s, %(key_column)s, %(lines)s, %(count)s) RETURNING id;

-- name: find_import
-- What is being taken in, with all its lines.
SELECT table_import.table_id, data_table.team_id, table_import.person_id, table_import.key_column, table_import.lines
FROM table_import JOIN data_table ON data_table.id = table_import.table_id
WHERE table_import.id = %(import)s AND table_import.state = 'waiting' AND data_table.deleted_at IS NULL;

-- name: lock_import
-- How far it has come, kept from others until the transaction ends.
SELECT place FROM table_import WHERE id = %(import)s AND state = 'waiting' FOR UPDATE;

-- name: end_part
-- Notes that lines were gone through; with the last of them all lines are forgotten.
UPDATE table_import SET place = place + %(gone)s, kept = kept + %(kept)s, refused = refused || %(refused)s::jsonb,
    state = CASE WHEN place + %(gone)s >= count THEN 'done' ELSE state END,
    ended_at = CASE WHEN place + %(gone)s >= count THEN now() END,
    lines = CASE WHEN place + %(gone)s >= count THEN '[]' ELSE lines END
WHERE id = %(import)s;

-- name: stop_import
-- Takes in nothing more; what is in stays.
UPDATE table_import SET state = 'stopped', ended_at = now(), lines = '[]' FROM data_table
WHERE table_import.id = %(import)s AND table_import.state = 'waiting' AND data_table.id = table_import.table_id
    AND data_table.team_id = %(team)s AND data_table.id = %(table)s
RETURNING table_import.id;

-- name: list_imports
-- What was taken in of late into a table of the team, newest first.
SELECT table_import.id, table_import.name, table_import.count, table_import.place, table_import.kept,
    table_import.refused, table_import.state, person.name AS person, table_import.created_at
FROM table_import JOIN data_table ON data_table.id = table_import.table_id
    LEFT JOIN person ON person.id = table_import.person_id
WHERE data_table.team_id = %(team)s AND data_table.id = %(table)s AND data_table.deleted_at IS NULL
ORDER BY table_import.created_at DESC LIMIT 10;

-- name: forget_imports
-- Forgets what ended so many days ago.
DELETE FROM table_import WHERE ended_at < now() - make_interval(days => %(days)s);
