-- name: move
-- Moves a response of a form of the team to a status, from the one that was seen.
WITH moved AS (
    UPDATE response SET status = nullif(%(status)s, '') FROM form
    WHERE form.id = response.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = %(number)s AND response.stage <> 'removed'
        AND coalesce(response.status, '') = %(was)s AND coalesce(response.status, '') <> %(status)s
    RETURNING response.form_id, response.number
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id, data)
    SELECT form_id, number, 'status', gen_random_uuid()::text, 'person', %(person)s,
        jsonb_build_object('from', %(was)s::text, 'to', %(status)s::text)
    FROM moved
)
SELECT number FROM moved;

-- name: status_now
-- The status that a response has, and who moved it there.
SELECT coalesce(response.status, '') AS status, (
    SELECT person.name FROM event LEFT JOIN person ON person.id = event.person_id
    WHERE event.form_id = response.form_id AND event.number = response.number AND event.kind = 'status'
    ORDER BY event.id DESC LIMIT 1) AS by
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s
    AND response.stage <> 'removed';

-- name: mark_status
-- Gives responses a status; what was there before is in the event.
WITH before AS (
    SELECT response.form_id, response.number, coalesce(response.status, '') AS status
    FROM response JOIN form ON form.id = response.form_id
    WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = ANY(%(numbers)s) AND response.stage <> 'removed'
        AND coalesce(response.status, '') <> %(value)s
    ORDER BY response.number FOR UPDATE OF response
), marked AS (
    UPDATE response SET status = nullif(%(value)s, '') FROM before
    WHERE (response.form_id, response.number) = (before.form_id, before.number)
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id, data)
    SELECT form_id, number, 'status', gen_random_uuid()::text, 'person', %(actor)s,
        jsonb_build_object('from', status, 'to', %(value)s::text)
    FROM before
)
SELECT number FROM before;

-- name: mark_tag
-- Gives responses a tag that they don't have, up to as many as one may have.
WITH marked AS (
    UPDATE response SET tags = array_append(response.tags, %(value)s) FROM form
    WHERE form.id = response.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = ANY(%(numbers)s) AND response.stage <> 'removed'
        AND NOT response.tags @> ARRAY[%(value)s] AND cardinality(response.tags) < %(most)s
    RETURNING response.form_id, response.number
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id, data)
    SELECT form_id, number, 'tagged', gen_random_uuid()::text, 'person', %(actor)s, jsonb_build_object('tag', %(value)s::text)
    FROM marked
)
SELECT number FROM marked;

-- name: mark_untag
-- Takes a tag from responses.
WITH marked AS (
    UPDATE response SET tags = array_remove(response.tags, %(value)s) FROM form
    WHERE form.id = response.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = ANY(%(numbers)s) AND response.stage <> 'removed' AND response.tags @> ARRAY[%(value)s]
    RETURNING response.form_id, response.number
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id, data)
    SELECT form_id, number, 'untagged', gen_random_uuid()::text, 'person', %(actor)s,
        jsonb_build_object('tag', %(value)s::text)
    FROM marked
)
SELECT number FROM marked;

-- name: mark_person
-- Gives responses to a person of the team, or to nobody.
WITH marked AS (
    UPDATE response SET person_id = nullif(%(value)s, '')::uuid FROM form
    WHERE form.id = response.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = ANY(%(numbers)s) AND response.stage <> 'removed'
        AND response.person_id IS DISTINCT FROM nullif(%(value)s, '')::uuid
        AND (%(value)s = '' OR EXISTS (SELECT FROM membership
            WHERE membership.team_id = form.team_id AND membership.person_id::text = %(value)s))
    RETURNING response.form_id, response.number, response.person_id
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id, data)
    SELECT form_id, number, 'given to', gen_random_uuid()::text, 'person', %(actor)s,
        jsonb_build_object('person', coalesce((SELECT name FROM person WHERE person.id = marked.person_id), ''))
    FROM marked
)
SELECT number FROM marked;

-- name: note
-- Keeps a note of a person's with a response.
INSERT INTO event (form_id, number, kind, key, who, person_id, data)
SELECT response.form_id, response.number, 'noted', gen_random_uuid()::text, 'person', %(person)s,
    jsonb_build_object('note', %(note)s::text)
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s
RETURNING id;

-- name: remove
-- Removes responses that wait for no money and have no plan that runs; what they were before is in the event.
WITH chosen AS (
    SELECT response.form_id, response.number, response.stage
    FROM response JOIN form ON form.id = response.form_id
    WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = ANY(%(numbers)s) AND response.stage IN ('complete', 'expired')
        AND response.payment NOT IN ('due', 'pending') AND NOT EXISTS (
            SELECT FROM plan JOIN payment ON payment.id = plan.payment_id
            WHERE payment.form_id = response.form_id AND payment.number = response.number
                AND plan.state IN ('waiting', 'running', 'stopping'))
    ORDER BY response.number FOR UPDATE OF response
), removed AS (
    UPDATE response SET stage = 'removed' FROM chosen
    WHERE (response.form_id, response.number) = (chosen.form_id, chosen.number)
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id, data)
    SELECT form_id, number, 'removed', gen_random_uuid()::text,
        CASE WHEN %(actor)s::uuid IS NULL THEN 'clock' ELSE 'person' END, %(actor)s, jsonb_build_object('from', stage)
    FROM chosen
)
SELECT number FROM chosen;

-- name: bring_back
-- Brings responses back that were removed, to the stage in which they were; suspected ones are held again elsewhere.
WITH chosen AS (
    SELECT response.form_id, response.number, coalesce((
        SELECT event.data ->> 'from' FROM event
        WHERE event.form_id = response.form_id AND event.number = response.number AND event.kind = 'removed'
        ORDER BY event.id DESC LIMIT 1), 'complete') AS stage
    FROM response JOIN form ON form.id = response.form_id
    WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = ANY(%(numbers)s) AND response.stage = 'removed' AND NOT response.held
    ORDER BY response.number FOR UPDATE OF response
), back AS (
    UPDATE response SET stage = chosen.stage FROM chosen
    WHERE (response.form_id, response.number) = (chosen.form_id, chosen.number)
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id)
    SELECT form_id, number, 'brought back', gen_random_uuid()::text, 'person', %(actor)s FROM chosen
)
SELECT number FROM chosen;
