-- name: lock_form
-- Lets one at a time publish a form. What was published meanwhile only a statement after this one sees.
SELECT revision, live_edition FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL FOR UPDATE;

-- name: edition_of_revision
-- The edition that was made of a revision of a form.
SELECT number FROM edition WHERE form_id = %(form)s AND revision = %(revision)s;

-- name: publish
-- Makes the next edition of the draft as it stands; the form is locked.
INSERT INTO edition (form_id, number, definition, revision, published_by)
SELECT id, (SELECT coalesce(max(number), 0) + 1 FROM edition WHERE form_id = id), draft, revision, %(person)s
FROM form WHERE team_id = %(team)s AND id = %(form)s
RETURNING number;

-- name: set_live
-- Makes an edition the one that visitors get.
UPDATE form SET live_edition = %(number)s WHERE team_id = %(team)s AND id = %(form)s;

-- name: list_editions
-- The editions of a form of the team, newest first.
SELECT edition.number, edition.published_at, person.name AS published_by,
    (SELECT count(*) FROM response WHERE response.form_id = form.id AND response.edition = edition.number
        AND response.stage = 'complete' AND NOT response.test) AS responses
FROM edition
JOIN form ON form.id = edition.form_id
LEFT JOIN person ON person.id = edition.published_by
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY edition.number DESC;

-- name: numbers_of_form
-- The numbers of a form's editions; a row without one where the form has none, no row where there is no such form.
SELECT edition.number
FROM form LEFT JOIN edition ON edition.form_id = form.id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY edition.number;

-- name: find_live
-- The edition that visitors get at a public address.
SELECT form.id AS form_id, edition.number, form.sites
FROM form JOIN team ON team.id = form.team_id JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE team.slug = %(team_slug)s AND form.slug = %(slug)s AND form.deleted_at IS NULL;

-- name: find_moved
-- The address of the form that had this one before.
SELECT form.slug
FROM former_slug JOIN form ON form.id = former_slug.form_id JOIN team ON team.id = former_slug.team_id
WHERE team.slug = %(team_slug)s AND former_slug.slug = %(slug)s AND form.deleted_at IS NULL;

-- name: find_definition
-- What was published as one edition; editions never change, so callers may keep it.
SELECT edition.definition FROM edition WHERE form_id = %(form)s AND number = %(number)s;

-- name: takes_responses
-- Whether the form can still be answered.
SELECT EXISTS (SELECT FROM form WHERE id = %(form)s AND deleted_at IS NULL AND live_edition IS NOT NULL);
