-- name: list_groups
-- The groups of a team by name, with who of its people is in each.
SELECT team_group.code, team_group.name,
    ARRAY(SELECT person_id FROM person_in_group
        WHERE person_in_group.team_id = team_group.team_id AND person_in_group.code = team_group.code) AS people
FROM team_group WHERE team_id = %(team)s ORDER BY lower(name), code;

-- name: codes_for
-- The codes of the groups of the team that a form belongs to.
SELECT team_group.code FROM form JOIN team_group ON team_group.team_id = form.team_id WHERE form.id = %(form)s;

-- name: insert_group
-- Makes a group; no row where one has its name or code.
INSERT INTO team_group (team_id, code, name) VALUES (%(team)s, %(code)s, %(name)s) ON CONFLICT DO NOTHING RETURNING code;

-- name: name_group
-- Gives a group another name.
UPDATE team_group SET name = %(name)s WHERE team_id = %(team)s AND code = %(code)s AND NOT EXISTS (
    SELECT FROM team_group AS other
    WHERE other.team_id = %(team)s AND other.code <> %(code)s AND lower(other.name) = lower(%(name)s))
RETURNING code;

-- name: delete_group
-- Takes a group away.
DELETE FROM team_group WHERE team_id = %(team)s AND code = %(code)s RETURNING name;

-- name: put_in
-- Puts a person of the team into a group.
INSERT INTO person_in_group (team_id, code, person_id)
SELECT membership.team_id, team_group.code, membership.person_id
FROM membership JOIN team_group ON team_group.team_id = membership.team_id
WHERE membership.team_id = %(team)s AND membership.person_id = %(person)s AND team_group.code = %(code)s
ON CONFLICT DO NOTHING;

-- name: take_from
-- Takes a person out of a group.
DELETE FROM person_in_group WHERE team_id = %(team)s AND code = %(code)s AND person_id = %(person)s;

-- name: forms_reading
-- The forms whose draft or live edition names a group, or lets it fill in, by name.
SELECT form.name FROM form LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND (
    position(%(quoted)s IN lower(form.draft::text)) > 0 OR position(%(quoted)s IN lower(edition.definition::text)) > 0
    OR form.access -> 'groups' ? %(code)s)
ORDER BY lower(form.name), form.id;
