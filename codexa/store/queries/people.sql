-- name: insert_team
-- Makes a team.
INSERT INTO team (slug, name) VALUES (%(slug)s, %(name)s) RETURNING id;

-- name: insert_person
-- Makes a person.
INSERT INTO person (email, email_folded, name, password_hash)
VALUES (%(email)s, %(folded)s, %(name)s, %(password_hash)s) RETURNING id;

-- name: insert_membership
-- Puts a person into a team.
INSERT INTO membership (team_id, person_id, role) VALUES (%(team)s, %(person)s, %(role)s);

-- name: find_person_by_email
-- The person who signs in, with the team that they see first: their own desk only where they have no other.
SELECT person.id, person.name, person.email, person.password_hash, membership.team_id
FROM person LEFT JOIN membership ON membership.person_id = person.id LEFT JOIN team ON team.id = membership.team_id
WHERE person.email_folded = %(email)s
ORDER BY team.personal_of IS NOT NULL, membership.team_id
LIMIT 1;

-- name: set_password
-- Gives a person another password and ends all their sessions.
WITH changed AS (
    UPDATE person SET password_hash = %(password_hash)s WHERE email_folded = %(email)s RETURNING id
), ended AS (
    DELETE FROM session USING changed WHERE session.person_id = changed.id
)
SELECT id FROM changed;

-- name: find_team
-- The team of that slug.
SELECT id FROM team WHERE slug = %(slug)s;

-- name: team_by_id
-- What a team is called.
SELECT name, slug FROM team WHERE id = %(team)s;

-- name: set_name
-- Gives a person another name; what they did keeps the one that they had then, where it was noted.
UPDATE person SET name = %(name)s WHERE id = %(person)s;

-- name: language_of
-- The language in which a person is written to.
SELECT language FROM person WHERE id = %(person)s;

-- name: set_language
-- Has a person written to in another language.
UPDATE person SET language = %(language)s WHERE id = %(person)s;

-- name: languages
-- The languages of those people who have one of these addresses, by the address in small letters.
SELECT email_folded, language FROM person WHERE email_folded = ANY(%(emails)s);

-- name: name_of
-- What a person is called.
SELECT name FROM person WHERE id = %(person)s;

-- name: as_signed_in
-- A person of a team as they are when they have signed in there.
SELECT person.id AS person_id, person.name AS person_name, person.email, team.id AS team_id, team.name AS team_name,
    team.slug AS team_slug, membership.role, membership.role AS team_role, '' AS csrf_token,
    ARRAY(SELECT code FROM person_in_group
        WHERE person_in_group.team_id = team.id AND person_in_group.person_id = person.id) AS groups
FROM membership JOIN person ON person.id = membership.person_id JOIN team ON team.id = membership.team_id
WHERE membership.person_id = %(person)s AND membership.team_id = %(team)s;

-- name: addresses
-- Where mail reaches these people of the team that a form belongs to; of who has left, who got what was theirs.
WITH RECURSIVE reached AS (
    SELECT home_team(%(form)s) AS team_id, person.id AS asked, person.id AS person_id, 0 AS step
    FROM person WHERE person.id::text = ANY(%(ids)s)
    UNION ALL
    SELECT reached.team_id, reached.asked, departure.successor_id, reached.step + 1
    FROM reached JOIN departure ON departure.team_id = reached.team_id AND departure.person_id = reached.person_id
    WHERE departure.successor_id IS NOT NULL AND reached.step < 20
)
SELECT DISTINCT ON (reached.asked) reached.asked AS id, person.email
FROM reached JOIN membership ON membership.team_id = reached.team_id AND membership.person_id = reached.person_id
    JOIN person ON person.id = reached.person_id
ORDER BY reached.asked, reached.step;

-- name: list_people
-- The people of a team, by name.
SELECT person.id, person.name, person.email, membership.role
FROM membership JOIN person ON person.id = membership.person_id
WHERE membership.team_id = %(team)s
ORDER BY person.name, person.id;
