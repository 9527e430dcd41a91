-- name: list_lists
-- The team's lists by name, each with how many forms have it in their draft.
SELECT id, name, jsonb_array_length(options) AS options, changed_at,
    (SELECT count(*) FROM form WHERE form.team_id = option_list.team_id AND form.deleted_at IS NULL
        AND form.draft::text LIKE '%%"taken_from": "' || replace(option_list.id::text, '-', '') || '"%%')::integer AS forms
FROM option_list WHERE team_id = %(team)s ORDER BY lower(name), id;

-- name: insert_list
-- Makes a list.
INSERT INTO option_list (team_id, name, options) VALUES (%(team)s, %(name)s, %(options)s) RETURNING id;

-- name: find_list
-- A list of the team.
SELECT id, name, options, revision FROM option_list WHERE team_id = %(team)s AND id = %(list)s;

-- name: set_list
-- Changes a list where the revision that was seen is still the latest; no row otherwise.
UPDATE option_list SET name = %(name)s, options = %(options)s, revision = revision + 1, changed_at = now()
WHERE team_id = %(team)s AND id = %(list)s AND revision = %(revision)s RETURNING revision;

-- name: delete_list
-- Deletes a list; choices keep the options that they had from it.
DELETE FROM option_list WHERE team_id = %(team)s AND id = %(list)s RETURNING id;

-- name: forms_with_list
-- The forms of the team in whose draft a choice has its options from a list.
SELECT id, name, revision, draft FROM form
WHERE team_id = %(team)s AND deleted_at IS NULL AND draft::text LIKE '%%"taken_from": "' || %(known_as)s::text || '"%%'
ORDER BY lower(name), id;
