-- name: set_labels
-- Sets the labels of a form of the team.
UPDATE form SET labels = %(labels)s WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL RETURNING id;

-- name: set_owner
-- Gives a form of the team to somebody in it.
UPDATE form SET owner_id = membership.person_id FROM membership
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND membership.team_id = form.team_id AND membership.person_id = %(person)s
RETURNING form.id;

-- name: list_deleted
-- What lies in the bin of a team; what was paid by stays longer, and is no more to be seen there.
SELECT form.id, form.name, form.deleted_at, form.live_edition,
    (SELECT count(*)::integer FROM response WHERE response.form_id = form.id AND response.stage = 'complete') AS responses
FROM form WHERE form.team_id = %(team)s AND form.deleted_at > now() - make_interval(days => %(days)s)
    AND NOT is_hidden(form.id, form.team_id, %(person)s)
ORDER BY form.deleted_at DESC, form.id;

-- name: forget_deleted
-- Deletes for good what lay in the bin for so many days. What was paid by stays, as books must.
WITH gone AS (
    SELECT form.id FROM form
    WHERE form.deleted_at < now() - make_interval(days => %(days)s)
        AND NOT EXISTS (SELECT FROM payment WHERE payment.form_id = form.id)
), left_over AS (
    SELECT upload.id FROM upload WHERE upload.form_id IN (SELECT id FROM gone)
), ended AS (
    DELETE FROM form WHERE id IN (SELECT id FROM gone)
)
SELECT id FROM left_over;

-- name: stale_outlines
-- The drafts of a team that were saved since they were last made to be found.
SELECT form.id, form.revision, form.draft FROM form LEFT JOIN form_outline ON form_outline.form_id = form.id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND form_outline.revision IS DISTINCT FROM form.revision
ORDER BY form.changed_at DESC LIMIT %(most)s;

-- name: keep_outlines
-- Keeps what drafts are found by.
INSERT INTO form_outline (form_id, revision, parts, words)
SELECT * FROM unnest(%(forms)s::uuid[], %(revisions)s::integer[], %(parts)s::jsonb[], %(words)s::text[])
ON CONFLICT (form_id) DO UPDATE SET revision = excluded.revision, parts = excluded.parts, words = excluded.words;

-- name: find_outlines
-- The forms that somebody sees whose parts have all of these words, latest change first.
SELECT form.id, form.name, form_outline.parts
FROM form_outline JOIN form ON form.id = form_outline.form_id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND form_outline.words LIKE ALL (%(patterns)s)
    AND NOT is_hidden(form.id, form.team_id, %(person)s)
ORDER BY form.changed_at DESC, form.id LIMIT %(most)s;

-- name: list_views
-- The filters of the desk that a person keeps.
SELECT name, content FROM desk_view WHERE team_id = %(team)s AND person_id = %(person)s ORDER BY lower(name), name;

-- name: save_view
-- Keeps one under a name.
INSERT INTO desk_view (team_id, person_id, name, content) VALUES (%(team)s, %(person)s, %(name)s, %(content)s)
ON CONFLICT (team_id, person_id, name) DO UPDATE SET content = excluded.content;

-- name: delete_view
-- Forgets one.
DELETE FROM desk_view WHERE team_id = %(team)s AND person_id = %(person)s AND name = %(name)s;
