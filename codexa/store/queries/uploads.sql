-- name: insert_upload
-- Takes up a file that was stored.
INSERT INTO upload (id, form_id, block_id, name, media_type, size, has_thumbnail)
VALUES (%(id)s, %(form)s, %(block)s, %(name)s, %(media_type)s, %(size)s, %(has_thumbnail)s);

-- name: find_uploads
-- What is known of files that were sent to a form and belong to no response yet.
SELECT id, block_id, name, media_type, size, has_thumbnail FROM upload
WHERE form_id = %(form)s AND id = ANY(%(ids)s) AND response_number IS NULL;

-- name: find_upload_of_team
-- What is known of one file of a response of the team.
SELECT upload.id, block_id, upload.name, media_type, size, has_thumbnail
FROM upload JOIN form ON form.id = upload.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND upload.id = %(id)s AND upload.response_number IS NOT NULL;

-- name: claim_uploads
-- Ties files to the response that names them.
UPDATE upload SET response_number = %(number)s
WHERE form_id = %(form)s AND id = ANY(%(ids)s) AND response_number IS NULL;

-- name: delete_unclaimed
-- Forgets files that no response has named for so many hours.
DELETE FROM upload WHERE response_number IS NULL AND stored_at < now() - make_interval(hours => %(hours)s)
RETURNING id;
