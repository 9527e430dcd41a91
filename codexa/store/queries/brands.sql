-- name: list_brands
-- The team's brands by name, with the number of forms whose draft uses each.
SELECT brand.id, brand.name, brand.look,
    (SELECT count(*) FROM form WHERE form.team_id = brand.team_id AND form.deleted_at IS NULL
        AND form.draft #>> '{brand,saved}' = brand.id::text)::integer AS forms,
    (SELECT count(*) FROM form WHERE form.team_id = brand.team_id AND form.deleted_at IS NULL
        AND form.draft #>> '{brand,saved}' = brand.id::text
        AND form.draft #>> '{brand,follows}' = 'edition')::integer AS waiting
FROM brand WHERE brand.team_id = %(team)s ORDER BY lower(brand.name), brand.id;

-- name: insert_brand
-- Keeps a new brand; gives no row where the team has one of that name.
INSERT INTO brand (team_id, name, look) VALUES (%(team)s, %(name)s, %(look)s)
ON CONFLICT (team_id, name) DO NOTHING RETURNING id;

-- name: set_brand
-- Changes a brand for all forms that use it.
UPDATE brand SET look = %(look)s, changed_at = now() WHERE team_id = %(team)s AND id = %(brand)s RETURNING id;

-- name: give_to_waiting_drafts
-- Puts the look of a brand into the drafts that wait with it, each a state of its own that can be looked at.
WITH changed AS (
    UPDATE form SET
        draft = jsonb_set(form.draft, '{brand}', brand.look || jsonb_build_object('saved', brand.id, 'follows', 'edition')),
        revision = form.revision + 1, changed_at = now(), changed_by = %(person)s
    FROM brand
    WHERE brand.team_id = %(team)s AND brand.id = %(brand)s AND form.team_id = brand.team_id AND form.deleted_at IS NULL
        AND form.draft #>> '{brand,saved}' = brand.id::text AND form.draft #>> '{brand,follows}' = 'edition'
    RETURNING form.id, form.revision, form.draft, form.changed_at, form.changed_by
)
INSERT INTO saved_state (form_id, revision, draft, saved_at, saved_by)
SELECT id, revision, draft, changed_at, changed_by FROM changed;

-- name: delete_brand
-- Deletes a brand; forms that used it keep the look they have a copy of.
DELETE FROM brand WHERE team_id = %(team)s AND id = %(brand)s RETURNING id;

-- name: find_look_of_form
-- How a brand looks now, asked for by a form of the same team.
SELECT brand.look FROM brand JOIN form ON form.team_id = brand.team_id WHERE brand.id::text = %(brand)s AND form.id = %(form)s;

-- name: insert_picture
-- Takes up a picture that was stored.
INSERT INTO picture (id, team_id, name, media_type, size, width, height)
VALUES (%(id)s, %(team)s, %(name)s, %(media_type)s, %(size)s, %(width)s, %(height)s);

-- name: delete_unused_pictures
-- Deletes pictures stored long ago that no draft, saved state, edition or brand of the team names.
DELETE FROM picture
WHERE stored_at < now() - make_interval(days => %(days)s)
    AND NOT EXISTS (
        SELECT FROM form
        WHERE form.team_id = picture.team_id AND (
            position(picture.id::text IN form.draft::text) > 0
            OR position(picture.id::text IN form.sharing::text) > 0
            OR EXISTS (
                SELECT FROM saved_state
                WHERE saved_state.form_id = form.id AND position(picture.id::text IN saved_state.draft::text) > 0
            )
            OR EXISTS (
                SELECT FROM edition
                WHERE edition.form_id = form.id AND position(picture.id::text IN edition.definition::text) > 0
            )
        )
    )
    AND NOT EXISTS (
        SELECT FROM brand WHERE brand.team_id = picture.team_id AND position(picture.id::text IN brand.look::text) > 0
    )
RETURNING id;

-- name: find_picture
-- What is known of a picture; pictures are public, as the forms are that show them.
SELECT media_type FROM picture WHERE id = %(picture)s;
