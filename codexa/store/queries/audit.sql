-- name: insert_entry
-- Notes what somebody did in a team.
INSERT INTO audit_entry (team_id, person_id, person_name, kind, about)
VALUES (%(team)s, %(person)s, %(name)s, %(kind)s, %(about)s);

-- name: form_name
-- What a form of a team is called.
SELECT name FROM form WHERE team_id = %(team)s AND id = %(form)s;

-- name: list_entries
-- What was done in a team, the latest first: of these kinds, by this person, from and to a moment, before an entry.
SELECT id, at, person_id, person_name, kind, about FROM audit_entry
WHERE team_id = %(team)s
    AND (%(kinds)s::text[] IS NULL OR kind = ANY (%(kinds)s))
    AND (%(person)s::uuid IS NULL OR person_id = %(person)s)
    AND (%(since)s::timestamptz IS NULL OR at >= %(since)s)
    AND (%(until)s::timestamptz IS NULL OR at < %(until)s)
    AND (%(before)s::bigint IS NULL OR id < %(before)s)
ORDER BY id DESC LIMIT %(most)s;
