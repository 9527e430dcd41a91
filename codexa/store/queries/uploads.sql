-- name: insert_upload
-- Takes up a file that was stored.
INSERT INTO upload (id, form_id, block_id, name, media_type, size, has_thumbnail, visit, network)
VALUES (%(id)s, %(form)s, %(block)s, %(name)s, %(media_type)s, %(size)s, %(has_thumbnail)s, %(visit)s, %(network)s);

-- name: sizes_waiting
-- How many bytes wait for a response: sent to this form, and sent from this network to any.
SELECT
    (SELECT coalesce(sum(size), 0) FROM upload WHERE form_id = %(form)s AND response_number IS NULL) AS of_form,
    (SELECT coalesce(sum(size), 0) FROM upload WHERE network = %(network)s AND response_number IS NULL) AS of_network;

-- name: find_uploads
-- What is known of files that were sent to a form on a visit and belong to no response yet.
SELECT id, block_id, name, media_type, size, has_thumbnail FROM upload
WHERE form_id = %(form)s AND visit = %(visit)s AND id = ANY(%(ids)s) AND response_number IS NULL;

-- name: lock_uploads
-- Keeps these files for this transaction, those that belong to no response yet; the ids in one order, so that two wait
-- for each other at most once.
SELECT id FROM upload WHERE form_id = %(form)s AND id = ANY(%(ids)s) AND response_number IS NULL ORDER BY id FOR UPDATE;

-- name: find_upload_of_team
-- What is known of one file of a response of the team.
SELECT upload.id, block_id, upload.name, media_type, size, has_thumbnail
FROM upload JOIN form ON form.id = upload.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND upload.id = %(id)s AND upload.response_number IS NOT NULL;

-- name: claim_uploads
-- Ties files to the response that names them.
UPDATE upload SET response_number = %(number)s
WHERE form_id = %(form)s AND id = ANY(%(ids)s);

-- name: delete_unclaimed
-- Forgets files that no response has named for so many hours, and no visitor goes on with later.
DELETE FROM upload WHERE response_number IS NULL AND stored_at < now() - make_interval(hours => %(hours)s)
    AND NOT EXISTS (SELECT FROM kept_answers
        WHERE kept_answers.form_id = upload.form_id AND kept_answers.visit = upload.visit AND upload.visit <> '')
RETURNING id;

-- name: hold_tidying
-- Lets nothing be tidied up until the transaction ends, or waits until the tidying is over.
SELECT pg_advisory_xact_lock(hashtextextended('tidying', 0));

-- name: all_files
-- Every file that the database knows, as it lies in the folder of files.
SELECT id::text AS path FROM upload
UNION ALL SELECT id::text || '.small' FROM upload WHERE has_thumbnail
UNION ALL SELECT id::text FROM record_file
UNION ALL SELECT id::text || '.small' FROM record_file WHERE has_thumbnail
UNION ALL SELECT 'pictures/' || id::text FROM picture;
