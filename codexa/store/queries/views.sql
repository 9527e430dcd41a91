-- name: list_views
-- The views of a form of the team, by name.
SELECT response_view.id, response_view.name, response_view.content, response_view.opens_first, person.name AS made_by
FROM response_view JOIN form ON form.id = response_view.form_id
LEFT JOIN person ON person.id = response_view.made_by
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY response_view.name;

-- name: none_first
-- Lets no view of the form open first.
UPDATE response_view SET opens_first = false FROM form
WHERE form.id = response_view.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND response_view.opens_first;

-- name: insert_view
-- Keeps a new view, where its name is free.
INSERT INTO response_view (form_id, name, content, opens_first, made_by)
SELECT id, %(name)s, %(content)s, %(opens_first)s, %(person)s FROM form
WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL
ON CONFLICT (form_id, name) DO NOTHING
RETURNING id;

-- name: update_view
-- Keeps a view anew, where its name is free.
UPDATE response_view SET name = %(name)s, content = %(content)s, opens_first = %(opens_first)s FROM form
WHERE form.id = response_view.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND response_view.id = %(view)s AND NOT EXISTS (SELECT FROM response_view AS other
        WHERE other.form_id = form.id AND other.name = %(name)s AND other.id <> %(view)s)
RETURNING response_view.id;

-- name: delete_view
-- Forgets a view.
DELETE FROM response_view USING form
WHERE form.id = response_view.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND response_view.id = %(view)s
RETURNING response_view.id;

-- name: statuses
-- The statuses that a form of the team gives its responses.
SELECT statuses FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL;

-- name: set_statuses
-- Gives a form other statuses.
UPDATE form SET statuses = %(statuses)s WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL
RETURNING id;

-- name: known_tags
-- The tags that responses of a form have: few have any.
SELECT DISTINCT unnest(tags) AS tag FROM response WHERE form_id = %(form)s AND tags <> '{}' ORDER BY tag LIMIT 500;

-- name: known_links
-- What sealed links of a form were made with.
SELECT id, name FROM link_batch WHERE form_id = %(form)s ORDER BY id DESC LIMIT 500;
