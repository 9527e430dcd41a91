-- name: own_desk
-- The personal desk of somebody.
SELECT id FROM team WHERE personal_of = %(person)s;

-- name: insert_desk
-- Makes the personal desk of somebody, with them as its owner; no row where they have one.
WITH made AS (
    INSERT INTO team (slug, name, personal_of) VALUES (%(slug)s, %(name)s, %(person)s)
    ON CONFLICT DO NOTHING RETURNING id
)
INSERT INTO membership (team_id, person_id, role) SELECT id, %(person)s, 'owner' FROM made RETURNING team_id AS id;

-- name: is_personal
-- Whether a team is somebody's personal desk.
SELECT EXISTS (SELECT FROM team WHERE id = %(team)s AND personal_of IS NOT NULL) AS is_personal;

-- name: slugs_of_teams
-- The slugs of teams that begin so.
SELECT slug FROM team WHERE slug = %(slug)s OR slug LIKE %(slug)s || '-%%';

-- name: form_to_move
-- What of a form hangs on its team: its documents, its address, and who may fill it in.
SELECT form.name, form.slug, form.draft, form.access, edition.definition AS live FROM form
LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL FOR UPDATE OF form;

-- name: who_uses_table
-- What else of a team than a form, and these tables, names a table: other forms and tables, by name.
SELECT form.name FROM form LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.id <> %(form)s AND form.deleted_at IS NULL
    AND (position(%(known_as)s IN form.draft::text) > 0 OR position(%(known_as)s IN edition.definition::text) > 0)
UNION ALL
SELECT name FROM data_table
WHERE team_id = %(team)s AND deleted_at IS NULL AND id <> ALL (%(tables)s) AND position(%(known_as)s IN definition::text) > 0
UNION ALL
SELECT 'the team''s members' FROM team WHERE id = %(team)s AND members_table = ANY (%(tables)s)
    AND members_table::text = %(id)s;

-- name: people_missing
-- Those of some people who are not in a team, by name.
SELECT name FROM person WHERE id::text = ANY (%(people)s) AND NOT EXISTS (
    SELECT FROM membership WHERE membership.team_id = %(team)s AND membership.person_id = person.id)
ORDER BY name;

-- name: move_form
-- Moves a form to another team under an address; the one that it had leads on.
WITH kept AS (
    INSERT INTO former_slug (team_id, slug, form_id) VALUES (%(source)s, %(before)s, %(form)s)
    ON CONFLICT (team_id, slug) DO UPDATE SET form_id = EXCLUDED.form_id
), taken_back AS (
    DELETE FROM former_slug WHERE team_id = %(team)s AND slug = %(slug)s AND form_id = %(form)s
), tables AS (
    UPDATE data_table SET team_id = %(team)s WHERE team_id = %(source)s AND id = ANY (%(tables)s)
), keys AS (
    UPDATE api_key SET team_id = %(team)s WHERE team_id = %(source)s AND form_id = %(form)s
), exceptions AS (
    DELETE FROM form_exception WHERE form_id = %(form)s
), handed AS (
    UPDATE response SET person_id = NULL WHERE form_id = %(form)s AND person_id IS NOT NULL AND NOT EXISTS (
        SELECT FROM membership WHERE membership.team_id = %(team)s AND membership.person_id = response.person_id)
), pictures AS (
    UPDATE picture SET team_id = %(team)s WHERE team_id = %(source)s AND (
        EXISTS (SELECT FROM form WHERE form.id = %(form)s
            AND (position(picture.id::text IN form.draft::text) > 0 OR position(picture.id::text IN form.sharing::text) > 0))
        OR EXISTS (SELECT FROM edition WHERE edition.form_id = %(form)s
            AND position(picture.id::text IN edition.definition::text) > 0))
        AND NOT EXISTS (SELECT FROM form AS other WHERE other.team_id = %(source)s AND other.id <> %(form)s
            AND (position(picture.id::text IN other.draft::text) > 0 OR EXISTS (
                SELECT FROM edition WHERE edition.form_id = other.id
                    AND position(picture.id::text IN edition.definition::text) > 0)))
), brands AS (
    UPDATE brand SET team_id = %(team)s FROM form
    WHERE form.id = %(form)s AND brand.team_id = %(source)s AND form.draft #>> '{brand,saved}' = brand.id::text
        AND NOT EXISTS (SELECT FROM form AS other WHERE other.team_id = %(source)s AND other.id <> %(form)s
            AND position(brand.id::text IN other.draft::text) > 0)
        AND NOT EXISTS (SELECT FROM brand AS same WHERE same.team_id = %(team)s AND same.name = brand.name)
)
UPDATE form SET team_id = %(team)s, slug = %(slug)s, changed_at = now(), changed_by = %(person)s
WHERE id = %(form)s AND team_id = %(source)s RETURNING id;

-- name: forms_of_desk
-- The forms on the personal desk of somebody, by name, with whether they were published.
SELECT form.id, form.name FROM form JOIN team ON team.id = form.team_id
WHERE team.personal_of = %(person)s AND form.deleted_at IS NULL ORDER BY lower(form.name), form.id;

-- name: count_teams
-- In how many teams somebody is, beside their own desk.
SELECT count(*) AS count FROM membership JOIN team ON team.id = membership.team_id
WHERE membership.person_id = %(person)s AND team.personal_of IS NULL;
