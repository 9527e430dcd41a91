-- name: insert_file
-- Takes up a file to be made of responses of a form of the team.
INSERT INTO export_file (form_id, person_id, name, about)
SELECT form.id, %(person)s, %(name)s, %(about)s FROM form
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
RETURNING id;

-- name: find_file
-- A file that is still to be made.
SELECT export_file.form_id, form.team_id, export_file.about FROM export_file JOIN form ON form.id = export_file.form_id
WHERE export_file.id = %(file)s AND export_file.state = 'waiting' AND form.deleted_at IS NULL;

-- name: note_rows
-- Notes how many rows are written; nothing where nobody wants the file any more.
UPDATE export_file SET rows = %(rows)s WHERE id = %(file)s AND state = 'waiting' RETURNING id;

-- name: end_file
-- Notes how the making of a file ended.
UPDATE export_file SET state = %(state)s, rows = %(rows)s, size = %(size)s, result = %(result)s
WHERE id = %(file)s AND state = 'waiting';

-- name: list_files
-- The files of a form of the team, newest first.
SELECT export_file.id, export_file.name, export_file.rows, export_file.size, export_file.state, export_file.result,
    person.name AS person, export_file.created_at
FROM export_file JOIN form ON form.id = export_file.form_id LEFT JOIN person ON person.id = export_file.person_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY export_file.created_at DESC LIMIT 20;

-- name: delete_file
-- Forgets a file of a form of the team, made or not.
DELETE FROM export_file USING form
WHERE export_file.id = %(file)s AND form.id = export_file.form_id AND form.team_id = %(team)s AND form.id = %(form)s
RETURNING export_file.id;

-- name: delete_of_form
-- Forgets all files of a form.
DELETE FROM export_file WHERE form_id = %(form)s RETURNING id;

-- name: delete_old
-- Forgets files that were asked for so many hours ago.
DELETE FROM export_file WHERE created_at < now() - make_interval(hours => %(hours)s) RETURNING id;
