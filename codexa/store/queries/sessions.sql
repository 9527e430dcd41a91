-- name: insert_session
-- Signs a person in.
INSERT INTO session (token_digest, person_id, team_id, csrf_token, expires_at, program)
VALUES (%(digest)s, %(person)s, %(team)s, %(csrf_token)s, now() + %(lifetime)s, %(program)s);

-- name: list_sessions
-- The sessions of a person that count, the last used first; `own` is the one that asks.
SELECT id, created_at, seen_at, program, token_digest = %(digest)s AS own FROM session
WHERE person_id = %(person)s AND expires_at > now() AND seen_at > now() - %(idle)s
ORDER BY seen_at DESC, id;

-- name: end_session
-- Ends a session of a person.
DELETE FROM session WHERE person_id = %(person)s AND id = %(session)s RETURNING id;

-- name: move_session
-- Takes a session to another team of its person.
UPDATE session SET team_id = %(team)s WHERE token_digest = %(digest)s;

-- name: find_session
-- Who is signed in, in which team and role; nothing once it has expired, was idle, or the person has left the team.
-- With `used` it is noted, once a minute, that somebody did something. Of a form another role may hold; owners have theirs.
WITH touched AS (
    UPDATE session SET seen_at = now()
    WHERE %(used)s AND token_digest = %(digest)s AND expires_at > now()
        AND seen_at BETWEEN now() - %(idle)s AND now() - interval '1 minute'
)
SELECT person.id AS person_id, person.name AS person_name, person.email, team.id AS team_id, team.name AS team_name,
    team.slug AS team_slug, membership.role AS team_role, session.csrf_token,
    CASE WHEN membership.role = 'owner' THEN membership.role ELSE coalesce(form_exception.role, membership.role) END AS role,
    ARRAY(SELECT code FROM person_in_group
        WHERE person_in_group.team_id = team.id AND person_in_group.person_id = person.id) AS groups
FROM session
JOIN person ON person.id = session.person_id
JOIN team ON team.id = session.team_id
JOIN membership ON membership.person_id = person.id AND membership.team_id = team.id
LEFT JOIN form_exception ON form_exception.person_id = person.id AND form_exception.form_id = %(form)s
WHERE session.token_digest = %(digest)s AND session.expires_at > now() AND session.seen_at > now() - %(idle)s;

-- name: delete_session
-- Signs out.
DELETE FROM session WHERE token_digest = %(digest)s;

-- name: delete_expired
-- Forgets what no longer counts.
WITH gone AS (DELETE FROM session WHERE expires_at < now())
DELETE FROM sign_in_try WHERE tried_at < now() - interval '1 day';

-- name: count_try
-- Counts a try to sign in, unless its subject still has to wait: then nothing comes back. After the free ones each
-- further one makes the next wait twice as long; a quarter of an hour without one and all begins anew.
INSERT INTO sign_in_try AS known (subject, failures, tried_at, next_at) VALUES (%(subject)s, 1, now(), now())
ON CONFLICT (subject) DO UPDATE SET
    failures = CASE WHEN known.tried_at < now() - interval '15 minutes' THEN 1 ELSE known.failures + 1 END,
    tried_at = now(),
    next_at = now() + CASE
        WHEN known.tried_at < now() - interval '15 minutes' OR known.failures + 1 < %(free)s THEN interval '0'
        ELSE make_interval(secs => least(power(2, least(known.failures + 1 - %(free)s, 20)), %(longest)s))
    END
WHERE known.next_at <= now()
RETURNING failures;

-- name: seconds_to_wait
-- How long a subject still has to wait.
SELECT extract(epoch FROM next_at - now())::float AS seconds FROM sign_in_try WHERE subject = %(subject)s;

-- name: forget_tries
-- Forgets the tries after a right password.
DELETE FROM sign_in_try WHERE subject = ANY (%(subjects)s);

-- name: is_known_network
-- Whether a person has signed in from there in the last ninety days.
SELECT EXISTS (
    SELECT FROM known_network
    WHERE person_id = %(person)s AND network = %(network)s AND seen_at > now() - interval '90 days'
);

-- name: note_network
-- Notes that a person has signed in from there.
INSERT INTO known_network (person_id, network) VALUES (%(person)s, %(network)s)
ON CONFLICT (person_id, network) DO UPDATE SET seen_at = now();
