-- name: find_access
-- Who may fill in a form that is live, and how many responses are counted against its limit.
SELECT form.access, form.password_hash, form.live_edition, response_counter.access_turn AS turn,
    coalesce(claimable.taken, 0) AS taken, team.id AS team_id, team.name AS team_name, team.slug AS team_slug,
    team.rehearsal_of IS NOT NULL AS rehearsed
FROM form
JOIN team ON team.id = form.team_id
JOIN response_counter ON response_counter.form_id = form.id
LEFT JOIN claimable ON claimable.form_id = form.id AND claimable.name = 'responses'
WHERE form.id = %(form)s AND form.deleted_at IS NULL AND form.live_edition IS NOT NULL;

-- name: find_settings
-- The same for the team, of a form that may never have been published.
SELECT form.access, form.password_hash IS NOT NULL AS has_password, form.sites, form.sharing
FROM form WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL;

-- name: begin_change
-- Lets nobody in by what held until now, and no response be numbered until the transaction ends.
UPDATE response_counter SET access_turn = access_turn + 1 WHERE form_id = %(form)s;

-- name: set_access
-- Sets who may fill in a form.
UPDATE form SET access = %(access)s WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL RETURNING id;

-- name: set_password
-- Sets or takes away the password of a form.
UPDATE form SET password_hash = %(password_hash)s
WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL RETURNING id;

-- name: set_sharing
-- Sets how links to a form look in other programs.
UPDATE form SET sharing = %(sharing)s WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL RETURNING id;

-- name: count_responses
-- Has each response that stands count against the limit of all.
INSERT INTO claim (form_id, number, name, quantity)
SELECT form_id, number, 'responses', 1 FROM response
WHERE form_id = %(form)s AND stage IN ('waiting', 'complete') AND NOT test
ON CONFLICT DO NOTHING;

-- name: count_people
-- Has each response that stands count against the limit of whoever gave this answer.
INSERT INTO claim (form_id, number, name, quantity)
SELECT form_id, number, 'person:' || %(each)s || ':' || md5(lower(btrim((answers -> %(each)s) #>> '{}'))), 1
FROM response
WHERE form_id = %(form)s AND stage IN ('waiting', 'complete') AND NOT test
    AND jsonb_typeof(answers -> %(each)s) <> 'null'
ON CONFLICT DO NOTHING;

-- name: count_visitors
-- Has each response of whoever was signed in count as theirs; of several the first keeps the place.
INSERT INTO claim (form_id, number, name, quantity)
SELECT form_id, min(number), 'visitor:' || coalesce(member_id, filled_by), 1 FROM response
WHERE form_id = %(form)s AND stage IN ('waiting', 'complete') AND NOT test AND coalesce(member_id, filled_by) IS NOT NULL
GROUP BY form_id, coalesce(member_id, filled_by)
ON CONFLICT DO NOTHING;

-- name: recount
-- Adds up what is claimed under names that begin so.
INSERT INTO claimable (form_id, name, taken)
SELECT form_id, name, sum(quantity) FILTER (WHERE released_at IS NULL)
FROM claim WHERE form_id = %(form)s AND name LIKE %(names)s
GROUP BY form_id, name HAVING count(*) FILTER (WHERE released_at IS NULL) > 0
ON CONFLICT (form_id, name) DO UPDATE SET taken = EXCLUDED.taken;

-- name: name_of_person
-- The name under which who gave this answer is counted; the same words in capitals or not are one person.
SELECT 'person:' || %(each)s || ':' || md5(lower(btrim(%(answer)s::jsonb #>> '{}'))) AS name;
