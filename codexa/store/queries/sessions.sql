-- name: insert_session
-- Signs a person in.
INSERT INTO session (token_digest, person_id, team_id, csrf_token, expires_at)
VALUES (%(digest)s, %(person)s, %(team)s, %(csrf_token)s, now() + %(lifetime)s);

-- name: find_session
-- Who is signed in, in which team and role; nothing once it has expired or the person has left the team.
SELECT person.id AS person_id, person.name AS person_name, person.email, team.id AS team_id, team.name AS team_name,
    team.slug AS team_slug, membership.role, session.csrf_token
FROM session
JOIN person ON person.id = session.person_id
JOIN team ON team.id = session.team_id
JOIN membership ON membership.person_id = person.id AND membership.team_id = team.id
WHERE session.token_digest = %(digest)s AND session.expires_at > now();

-- name: delete_session
-- Signs out.
DELETE FROM session WHERE token_digest = %(digest)s;

-- name: delete_expired
-- Forgets what no longer counts.
WITH gone AS (DELETE FROM session WHERE expires_at < now())
DELETE FROM failed_sign_in WHERE at < now() - interval '1 day';

-- name: insert_failure
-- Counts a wrong password against an e-mail and an address.
INSERT INTO failed_sign_in (subject) SELECT unnest(%(subjects)s::text[]);

-- name: count_failures
-- The greatest number of recent wrong passwords of any of the subjects.
SELECT coalesce(max(failures), 0) FROM (
    SELECT count(*) AS failures FROM failed_sign_in
    WHERE subject = ANY (%(subjects)s) AND at > now() - %(window)s
    GROUP BY subject
) AS counted;

-- name: delete_failures
-- Forgets the wrong passwords after a right one.
DELETE FROM failed_sign_in WHERE subject = %(subject)s;
