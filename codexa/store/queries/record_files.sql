-- name: insert_file
-- Takes up a file that was stored for a record.
INSERT INTO record_file (id, table_id, number, name, media_type, size, has_thumbnail)
VALUES (%(id)s, %(table)s, %(number)s, %(name)s, %(media_type)s, %(size)s, %(has_thumbnail)s);

-- name: find_file
-- What is known of a file of a table of the team.
SELECT record_file.id, '' AS block_id, record_file.name, media_type, size, has_thumbnail
FROM record_file JOIN data_table ON data_table.id = record_file.table_id
WHERE data_table.team_id = %(team)s AND data_table.id = %(table)s AND data_table.deleted_at IS NULL
    AND record_file.id = %(id)s;

-- name: delete_left_over
-- Forgets files of records that are gone for good.
DELETE FROM record_file WHERE stored_at < now() - make_interval(hours => %(hours)s) AND NOT EXISTS (
    SELECT FROM record WHERE record.table_id = record_file.table_id AND record.number = record_file.number)
RETURNING id;

-- name: sent_upload
-- What is known of a file that a response has brought.
SELECT id, block_id, name, media_type, size, has_thumbnail FROM upload WHERE form_id = %(form)s AND id = %(id)s;
