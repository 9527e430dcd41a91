-- name: insert_bulk
-- Takes up what is to be done to responses.
INSERT INTO bulk (form_id, person_id, does, value, numbers)
SELECT form.id, %(person)s, %(does)s, %(value)s, %(numbers)s FROM form
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
RETURNING id;

-- name: take_part
-- The next part of what is to be done, kept from others until the transaction ends; nothing where it has ended.
SELECT bulk.form_id, bulk.person_id, form.team_id, bulk.does, bulk.value, bulk.place,
    cardinality(bulk.numbers) AS count,
    bulk.numbers[bulk.place + 1 : bulk.place + %(most)s] AS numbers
FROM bulk JOIN form ON form.id = bulk.form_id
WHERE bulk.id = %(bulk)s AND bulk.state = 'waiting' AND form.deleted_at IS NULL
FOR UPDATE OF bulk;

-- name: end_part
-- Notes that a part was gone through, and to which of it it happened.
UPDATE bulk SET place = place + %(gone)s, changed = changed || %(changed)s::integer[],
    state = CASE WHEN place + %(gone)s >= cardinality(numbers) THEN 'done' ELSE state END,
    ended_at = CASE WHEN place + %(gone)s >= cardinality(numbers) THEN now() END
WHERE id = %(bulk)s;

-- name: stop_bulk
-- Ends what is not done yet; what was gone through stays as it is.
UPDATE bulk SET state = 'stopped', ended_at = now() FROM form
WHERE bulk.id = %(bulk)s AND bulk.state = 'waiting' AND form.id = bulk.form_id AND form.team_id = %(team)s
    AND form.id = %(form)s
RETURNING bulk.id;

-- name: list_bulks
-- What was done of late to responses of a form of the team, and what is being done, newest first.
SELECT bulk.id, bulk.does, bulk.value, cardinality(bulk.numbers) AS count, bulk.place,
    cardinality(bulk.changed) AS changed, bulk.state, person.name AS person, bulk.created_at, bulk.ended_at
FROM bulk JOIN form ON form.id = bulk.form_id LEFT JOIN person ON person.id = bulk.person_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND (bulk.state = 'waiting' OR bulk.ended_at > now() - interval '1 day')
ORDER BY bulk.created_at DESC LIMIT 10;

-- name: changed_by
-- To which responses it happened, of what was done to a form of the team.
SELECT bulk.does, bulk.value, bulk.changed FROM bulk JOIN form ON form.id = bulk.form_id
WHERE bulk.id = %(bulk)s AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL;

-- name: insert_due
-- Takes up what forms have asked for of responses that are too old: those that money is waited for, that a plan pays,
-- or that are held stay; what is anonymised already is not done again.
INSERT INTO bulk (form_id, does, numbers)
SELECT form.id, form.retention ->> 'does', array_agg(response.number ORDER BY response.number)
FROM form JOIN response ON response.form_id = form.id
WHERE form.retention <> '{}' AND form.deleted_at IS NULL AND response.stage IN ('complete', 'expired')
    AND response.received_at < now() - make_interval(days => (form.retention ->> 'days')::integer)
    AND NOT response.held AND response.payment NOT IN ('due', 'pending')
    AND NOT EXISTS (SELECT FROM plan JOIN payment ON payment.id = plan.payment_id
        WHERE payment.form_id = response.form_id AND payment.number = response.number
            AND plan.state IN ('waiting', 'running', 'stopping'))
    AND (form.retention ->> 'does' = 'remove' OR NOT EXISTS (SELECT FROM event
        WHERE event.form_id = response.form_id AND event.number = response.number AND event.kind = 'anonymised'))
    AND NOT EXISTS (SELECT FROM bulk AS other
        WHERE other.form_id = form.id AND other.state = 'waiting' AND other.person_id IS NULL)
GROUP BY form.id
RETURNING id, (SELECT team_id FROM form WHERE form.id = bulk.form_id) AS team_id;

-- name: retention
-- After how many days a form of the team has its responses anonymised or removed.
SELECT retention FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL;

-- name: set_retention
-- Has a form's responses anonymised or removed after so many days, or kept.
UPDATE form SET retention = %(retention)s WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL
RETURNING id;

-- name: forget_bulks
-- Forgets what ended so many days ago.
DELETE FROM bulk WHERE ended_at < now() - make_interval(days => %(days)s);
