-- name: list_factors
-- The second factors of a person that count, the oldest first.
SELECT id, kind, name, made_at FROM second_factor
WHERE person_id = %(person)s AND confirmed_at IS NOT NULL ORDER BY made_at, id;

-- name: has_factor
-- Whether a person has a second factor.
SELECT EXISTS (SELECT FROM second_factor WHERE person_id = %(person)s AND confirmed_at IS NOT NULL) AS has_one;

-- name: insert_codes
-- Begins with codes of an app, in the place of those that were never confirmed.
WITH begun AS (
    DELETE FROM second_factor WHERE person_id = %(person)s AND kind = 'codes' AND confirmed_at IS NULL
)
INSERT INTO second_factor (person_id, kind, name, secret) VALUES (%(person)s, 'codes', %(name)s, %(secret)s) RETURNING id;

-- name: secrets_of
-- What codes of a person are made of: those that count, or one that is to be confirmed.
SELECT id, secret, last_step FROM second_factor
WHERE person_id = %(person)s AND kind = 'codes' AND CASE
    WHEN %(factor)s::uuid IS NULL THEN confirmed_at IS NOT NULL ELSE id = %(factor)s AND confirmed_at IS NULL END;

-- name: use_step
-- Takes a code's step, once; with it the codes are confirmed.
UPDATE second_factor SET last_step = %(step)s, confirmed_at = coalesce(confirmed_at, now())
WHERE id = %(factor)s AND last_step < %(step)s RETURNING id;

-- name: insert_passkey
-- Keeps a passkey; no row where somebody has it.
INSERT INTO second_factor (person_id, kind, name, credential, public_key, uses, confirmed_at)
VALUES (%(person)s, 'passkey', %(name)s, %(credential)s, %(public_key)s, %(uses)s, now())
ON CONFLICT DO NOTHING RETURNING id;

-- name: passkeys_of
-- The passkeys of a person.
SELECT credential FROM second_factor WHERE person_id = %(person)s AND kind = 'passkey';

-- name: find_passkey
-- A passkey by what it calls itself.
SELECT id, person_id, name, public_key, uses FROM second_factor WHERE credential = %(credential)s;

-- name: use_passkey
-- Notes how often a passkey says that it was used; a number that was seen is not taken again.
UPDATE second_factor SET uses = %(uses)s
WHERE id = %(factor)s AND (uses < %(uses)s OR (uses = 0 AND %(uses)s = 0)) RETURNING id;

-- name: delete_factor
-- Takes a second factor away; with the last one go the codes for recovery.
WITH gone AS (
    DELETE FROM second_factor WHERE person_id = %(person)s AND id = %(factor)s RETURNING name
), codes AS (
    DELETE FROM recovery_code USING gone WHERE person_id = %(person)s AND NOT EXISTS (
        SELECT FROM second_factor
        WHERE second_factor.person_id = %(person)s AND id <> %(factor)s AND confirmed_at IS NOT NULL)
)
SELECT name FROM gone;

-- name: forget_codes
-- Forgets the codes for recovery of a person.
DELETE FROM recovery_code WHERE person_id = %(person)s;

-- name: insert_codes_for_recovery
-- Keeps codes for recovery by their marks.
INSERT INTO recovery_code (person_id, mark) SELECT %(person)s, unnest(%(marks)s::text[]);

-- name: use_recovery_code
-- Uses a code for recovery, once.
DELETE FROM recovery_code WHERE person_id = %(person)s AND mark = %(mark)s RETURNING mark;

-- name: count_recovery_codes
-- How many codes for recovery are left.
SELECT count(*) AS count FROM recovery_code WHERE person_id = %(person)s;

-- name: insert_step
-- Notes that somebody is on the way in; steps whose time is over are forgotten.
WITH over AS (DELETE FROM sign_in_step WHERE expires_at < now())
INSERT INTO sign_in_step (token_digest, person_id, team_id, challenge, expires_at)
VALUES (%(digest)s, %(person)s, %(team)s, %(challenge)s, now() + interval '10 minutes')
ON CONFLICT (token_digest) DO UPDATE SET challenge = EXCLUDED.challenge;

-- name: find_step
-- Who is on the way in.
SELECT person_id, team_id, challenge FROM sign_in_step WHERE token_digest = %(digest)s AND expires_at > now();

-- name: use_step_in
-- Ends somebody's way in, once.
DELETE FROM sign_in_step WHERE token_digest = %(digest)s AND expires_at > now() RETURNING person_id, team_id, challenge;
