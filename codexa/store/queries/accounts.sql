-- name: find_person
-- Somebody, by id.
SELECT id, name, email, password_hash, language FROM person WHERE id = %(person)s;

-- name: was_asked_of_late
-- Whether a link for a new password was asked for within the last minutes: then no further mail is sent.
SELECT EXISTS (
    SELECT FROM errand WHERE kind = 'link for a new password' AND about ->> 'person' = %(person)s::text
        AND created_at > now() - make_interval(mins => %(minutes)s)
) AS asked;

-- name: insert_password_link
-- Makes a link by which a password is set anew.
INSERT INTO password_link (token_digest, person_id, expires_at)
VALUES (%(digest)s, %(person)s, now() + make_interval(mins => %(minutes)s));

-- name: is_password_link
-- Whether a link still works.
SELECT EXISTS (SELECT FROM password_link WHERE token_digest = %(digest)s AND expires_at > now()) AS works;

-- name: use_password_link
-- Uses a link: whose it was, and none of theirs works any more.
WITH used AS (
    SELECT person_id FROM password_link WHERE token_digest = %(digest)s AND expires_at > now() FOR UPDATE
), gone AS (
    DELETE FROM password_link USING used WHERE password_link.person_id = used.person_id RETURNING used.person_id
)
SELECT DISTINCT person_id FROM gone;

-- name: set_password_of
-- Gives somebody another password and ends all their sessions but the one that may stay.
WITH changed AS (
    UPDATE person SET password_hash = %(password_hash)s WHERE id = %(person)s RETURNING id
), ended AS (
    DELETE FROM session USING changed WHERE session.person_id = changed.id AND token_digest <> %(staying)s
)
DELETE FROM password_link USING changed WHERE password_link.person_id = changed.id;

-- name: ask_address_change
-- Notes which address somebody wants; what they wanted before is forgotten.
INSERT INTO address_change (person_id, email, email_folded, expires_at)
VALUES (%(person)s, %(email)s, %(folded)s, now() + interval '1 day')
ON CONFLICT (person_id) DO UPDATE SET email = EXCLUDED.email, email_folded = EXCLUDED.email_folded,
    old_digest = '', new_digest = '', old_confirmed = false, new_confirmed = false, expires_at = EXCLUDED.expires_at;

-- name: find_address_change
-- Which address somebody wants.
SELECT email, old_confirmed, new_confirmed FROM address_change WHERE person_id = %(person)s AND expires_at > now();

-- name: set_old_digest
-- Notes by what the old address confirms.
UPDATE address_change SET old_digest = %(digest)s
WHERE person_id = %(person)s AND email = %(email)s AND expires_at > now() RETURNING person_id;

-- name: set_new_digest
-- Notes by what the new address confirms.
UPDATE address_change SET new_digest = %(digest)s
WHERE person_id = %(person)s AND email = %(email)s AND expires_at > now() RETURNING person_id;

-- name: confirm_address
-- Confirms a change at the end whose link this is.
UPDATE address_change SET old_confirmed = old_confirmed OR old_digest = %(digest)s,
    new_confirmed = new_confirmed OR new_digest = %(digest)s
WHERE (old_digest = %(digest)s OR new_digest = %(digest)s) AND expires_at > now()
RETURNING person_id, email, email_folded, old_confirmed, new_confirmed;

-- name: change_address
-- Gives somebody the address that was confirmed at both ends, unless another person has it by now.
WITH old AS (
    SELECT id, email FROM person WHERE id = %(person)s FOR UPDATE
), changed AS (
    UPDATE person SET email = %(email)s, email_folded = %(folded)s FROM old
    WHERE person.id = old.id AND NOT EXISTS (SELECT FROM person AS other WHERE other.email_folded = %(folded)s)
    RETURNING old.email
), gone AS (
    DELETE FROM address_change WHERE person_id = %(person)s
)
SELECT email FROM changed;

-- name: forget_links
-- Forgets links and changes whose time is over.
WITH links AS (
    DELETE FROM password_link WHERE expires_at < now()
)
DELETE FROM address_change WHERE expires_at < now();
