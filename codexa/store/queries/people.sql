-- name: insert_team
-- Makes a team.
INSERT INTO team (slug, name) VALUES (%(slug)s, %(name)s) RETURNING id;

-- name: insert_person
-- Makes a person.
INSERT INTO person (email, name, password_hash) VALUES (%(email)s, %(name)s, %(password_hash)s) RETURNING id;

-- name: insert_membership
-- Puts a person into a team.
INSERT INTO membership (team_id, person_id, role) VALUES (%(team)s, %(person)s, %(role)s);

-- name: find_person_by_email
-- The person who signs in, with the team that they see first.
SELECT person.id, person.name, person.email, person.password_hash, membership.team_id
FROM person JOIN membership ON membership.person_id = person.id
WHERE lower(person.email) = lower(%(email)s)
ORDER BY membership.team_id
LIMIT 1;

-- name: team_exists
-- Whether there is a team of that slug.
SELECT EXISTS (SELECT FROM team WHERE slug = %(slug)s);
