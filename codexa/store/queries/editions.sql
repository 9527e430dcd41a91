-- name: lock_form
-- Lets one at a time publish a form. What was published meanwhile only a statement after this one sees.
SELECT revision, live_edition FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL FOR UPDATE;

-- name: edition_of_revision
-- The edition that was made of a revision of a form.
SELECT number FROM edition WHERE form_id = %(form)s AND revision = %(revision)s;

-- name: insert_edition
-- Makes the next edition of the draft as it stands; the form is locked.
INSERT INTO edition (form_id, number, definition, revision, published_by, note)
SELECT id, (SELECT coalesce(max(number), 0) + 1 FROM edition WHERE form_id = id), draft, revision, %(person)s, %(note)s
FROM form WHERE team_id = %(team)s AND id = %(form)s
RETURNING number;

-- name: set_live
-- Makes an edition the one that visitors get.
WITH went AS (
    INSERT INTO went_live (form_id, edition, person_id) VALUES (%(form)s, %(number)s, %(person)s)
)
UPDATE form SET live_edition = %(number)s, tables_changed = NULL WHERE team_id = %(team)s AND id = %(form)s;

-- name: last_live
-- Which edition was made what visitors get at last, when, and by whom.
SELECT went_live.edition, went_live.at, went_live.person_id, person.name AS person
FROM went_live LEFT JOIN person ON person.id = went_live.person_id
WHERE went_live.form_id = %(form)s ORDER BY went_live.id DESC LIMIT 1;

-- name: list_editions
-- The editions of a form of the team, newest first.
SELECT edition.number, edition.published_at, person.name AS published_by, edition.note,
    went.at AS last_live_at, went.person AS last_live_by,
    (SELECT count(*) FROM response WHERE response.form_id = form.id AND response.edition = edition.number
        AND response.stage = 'complete' AND NOT response.test) AS responses
FROM edition
JOIN form ON form.id = edition.form_id
LEFT JOIN person ON person.id = edition.published_by
LEFT JOIN LATERAL (
    SELECT went_live.at, again.name AS person
    FROM went_live LEFT JOIN person AS again ON again.id = went_live.person_id
    WHERE went_live.form_id = edition.form_id AND went_live.edition = edition.number
    ORDER BY went_live.id DESC LIMIT 1
) AS went ON true
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY edition.number DESC;

-- name: numbers_of_form
-- The numbers of a form's editions; a row without one where the form has none, no row where there is no such form.
SELECT edition.number
FROM form LEFT JOIN edition ON edition.form_id = form.id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY edition.number;

-- name: all_numbers
-- The numbers of a form's editions, whoever asks.
SELECT number FROM edition WHERE form_id = %(form)s ORDER BY number;

-- name: find_live
-- The edition that visitors get at a public address.
SELECT form.id AS form_id, edition.number, form.sites, form.sharing
FROM form JOIN team ON team.id = form.team_id JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE team.slug = %(team_slug)s AND form.slug = %(slug)s AND form.deleted_at IS NULL;

-- name: find_moved
-- The address of the form that had this one before.
SELECT form.slug, present.slug AS team_slug
FROM former_slug JOIN form ON form.id = former_slug.form_id JOIN team ON team.id = former_slug.team_id
JOIN team AS present ON present.id = form.team_id
WHERE team.slug = %(team_slug)s AND former_slug.slug = %(slug)s AND form.deleted_at IS NULL;

-- name: find_definition
-- What was published as one edition; editions never change, so callers may keep it.
SELECT edition.definition FROM edition WHERE form_id = %(form)s AND number = %(number)s;

-- name: live_of_form
-- The edition that visitors of a form get.
SELECT live_edition FROM form WHERE id = %(form)s AND deleted_at IS NULL;
