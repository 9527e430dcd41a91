-- name: insert_key
-- Makes a key for a team, or for one form of it.
INSERT INTO api_key (team_id, form_id, name, digest, rights, made_by)
SELECT %(team)s, %(form)s, %(name)s, %(digest)s, %(rights)s, %(person)s
WHERE %(form)s::uuid IS NULL OR EXISTS (
    SELECT FROM form WHERE form.id = %(form)s AND form.team_id = %(team)s AND form.deleted_at IS NULL)
RETURNING id;

-- name: list_keys
-- The keys of a team that still open something, newest first.
SELECT api_key.id, api_key.name, api_key.rights, api_key.form_id, form.name AS form_name, person.name AS made_by,
    api_key.made_at, api_key.last_used_at
FROM api_key LEFT JOIN form ON form.id = api_key.form_id LEFT JOIN person ON person.id = api_key.made_by
WHERE api_key.team_id = %(team)s AND api_key.ended_at IS NULL AND (form.id IS NULL OR form.deleted_at IS NULL)
ORDER BY api_key.made_at DESC;

-- name: end_key
-- Ends a key of a team for ever.
UPDATE api_key SET ended_at = now() WHERE id = %(key)s AND team_id = %(team)s AND ended_at IS NULL RETURNING id;

-- name: find_key
-- What a key opens.
SELECT id, team_id, form_id, rights, last_used_at IS NULL OR last_used_at < now() - interval '1 minute' AS stale
FROM api_key WHERE digest = %(digest)s AND ended_at IS NULL;

-- name: use_key
-- Notes when a key was used.
UPDATE api_key SET last_used_at = now() WHERE id = %(key)s;
