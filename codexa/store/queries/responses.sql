-- name: find_by_key
-- Whether a form can still be answered, with the response that was kept under an idempotency key, if one was.
SELECT form.deleted_at IS NULL AND form.live_edition IS NOT NULL AS open, response.number, response.content_digest,
    response.answers, response.told
FROM form LEFT JOIN response ON response.form_id = form.id AND response.idempotency_key = %(key)s
WHERE form.id = %(form)s;

-- name: insert_response
-- Keeps a response under the next number of its form, with the first events of its life: where the form can still be
-- answered, by who may as it was known in that turn, by a link that holds, and nothing was kept under this key. Whoever waits for a number waits from this statement to the commit.
WITH numbered AS (
    UPDATE response_counter SET last_number = last_number + 1
    FROM form
    WHERE response_counter.form_id = %(form)s AND form.id = %(form)s
        AND form.deleted_at IS NULL AND form.live_edition IS NOT NULL
        AND (%(turn)s::integer IS NULL OR response_counter.access_turn = %(turn)s)
        AND (%(sealed_link)s::bigint IS NULL
            OR EXISTS (SELECT FROM sealed_link WHERE id = %(sealed_link)s AND ended_at IS NULL))
    RETURNING response_counter.form_id, last_number
), kept AS (
    INSERT INTO response (form_id, number, edition, received_at, answers, computed, path, confirmation, idempotency_key,
        content_digest, told, stage, payment, test, held, came, sealed_link, member_id, filled_by, booking)
    SELECT numbered.form_id, last_number, edition, received_at, answers, computed, path, confirmation, %(key)s,
        content_digest, told, stage, payment, test, held, came, %(sealed_link)s, member_id, filled_by, booking
    FROM numbered, jsonb_populate_record(NULL::response, %(came_in)s) AS came_in
    ON CONFLICT (form_id, idempotency_key) DO NOTHING
    RETURNING form_id, number, received_at
), happened AS (
    INSERT INTO event (form_id, number, kind, at, who)
    SELECT form_id, number, kind, received_at, 'visitor'
    FROM kept, jsonb_array_elements_text(%(came_in)s -> 'events') AS kind
)
SELECT (SELECT number FROM kept) AS number, EXISTS (SELECT FROM numbered) AS took_one;

-- name: hand_in_kept
-- The same for a response that was kept to go on with later: it has its number and stays under it.
WITH door AS (
    SELECT response_counter.form_id FROM response_counter JOIN form ON form.id = response_counter.form_id
    WHERE response_counter.form_id = %(form)s AND form.deleted_at IS NULL AND form.live_edition IS NOT NULL
        AND (%(turn)s::integer IS NULL OR response_counter.access_turn = %(turn)s)
        AND (%(sealed_link)s::bigint IS NULL
            OR EXISTS (SELECT FROM sealed_link WHERE id = %(sealed_link)s AND ended_at IS NULL))
    FOR UPDATE OF response_counter
), handed_in AS (
    UPDATE response SET edition = came_in.edition, received_at = came_in.received_at, answers = came_in.answers,
        computed = came_in.computed, path = came_in.path, confirmation = came_in.confirmation,
        idempotency_key = %(key)s, content_digest = came_in.content_digest, told = came_in.told,
        stage = came_in.stage, payment = came_in.payment, test = came_in.test, held = came_in.held,
        came = came_in.came, sealed_link = %(sealed_link)s, booking = came_in.booking,
        member_id = coalesce(came_in.member_id, response.member_id),
        filled_by = coalesce(came_in.filled_by, response.filled_by)
    FROM door, jsonb_populate_record(NULL::response, %(came_in)s) AS came_in
    WHERE response.form_id = door.form_id AND response.number = %(number)s AND response.stage = 'kept'
        AND NOT EXISTS (SELECT FROM response AS other
            WHERE other.form_id = %(form)s AND other.idempotency_key = %(key)s AND other.number <> %(number)s)
    RETURNING response.form_id, response.number, response.received_at
), happened AS (
    INSERT INTO event (form_id, number, kind, at, who)
    SELECT form_id, number, kind, received_at, 'visitor'
    FROM handed_in, jsonb_array_elements_text(%(came_in)s -> 'events') AS kind
), emptied AS (
    UPDATE kept_answers SET entered = '{}', version = version + 1 FROM handed_in
    WHERE kept_answers.form_id = handed_in.form_id AND kept_answers.number = handed_in.number
)
SELECT (SELECT number FROM handed_in) AS number, false AS took_one;

-- name: give_back_number
-- Takes the last number back. Whoever took it holds the counter until the end of the transaction.
UPDATE response_counter SET last_number = last_number - 1 WHERE form_id = %(form)s;

-- name: set_numbered
-- Keeps what could be worked out only once the response had its number.
UPDATE response SET answers = %(answers)s, computed = %(computed)s, path = %(path)s, confirmation = %(confirmation)s
WHERE form_id = %(form)s AND number = %(number)s;

-- name: list_events
-- What happened to a response of a form of the team, in order.
SELECT event.kind, event.key, event.at, event.who, person.name AS person, event.data
FROM event JOIN form ON form.id = event.form_id LEFT JOIN person ON person.id = event.person_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND event.number = %(number)s
ORDER BY event.id;

-- name: page_of_responses
-- Complete responses of a form of the team, newest first: those after a place in that order, or from the first.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed, response.told,
    response.test, response.stage, response.payment, response.decision, response.booking, response.at_part, response.status,
    response.tags, response.person_id
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.stage = 'complete'
    AND (%(number)s::integer IS NULL OR (response.received_at, response.number) < (%(received_at)s, %(number)s))
ORDER BY response.received_at DESC, response.number DESC
LIMIT %(limit)s;

-- name: by_numbers
-- Responses of a form by their numbers.
SELECT number, edition, received_at, answers, computed, told, test, stage, payment, decision, booking, at_part, status, tags,
    person_id
FROM response WHERE form_id = %(form)s AND number = ANY(%(numbers)s);

-- name: answers_by_numbers
-- What they say, in the order of AnswersRow.
SELECT number, edition, received_at, answers, computed, test
FROM response WHERE form_id = %(form)s AND number = ANY(%(numbers)s);

-- name: find_response
-- One response of a form of the team.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed, response.told,
    response.test, response.stage, response.payment, response.decision, response.booking, response.at_part, response.status,
    response.tags, response.person_id
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s;

-- name: lock_response
-- One response of a form of the team, kept from others until the transaction ends.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed, response.told,
    response.test, response.stage, response.payment, response.decision, response.booking, response.at_part, response.status,
    response.tags, response.person_id
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s
FOR UPDATE OF response;

-- name: corrected
-- Tells that a person corrected a response, with what it was before.
INSERT INTO event (form_id, number, kind, key, who, person_id, data)
VALUES (%(form)s, %(number)s, 'corrected', gen_random_uuid()::text,
    CASE WHEN %(person)s::uuid IS NULL THEN 'visitor' ELSE 'person' END, %(person)s, %(trail)s);

-- name: list_held
-- Responses of a form of the team that are suspected, or were removed as such, newest first.
SELECT response.number, response.received_at, coalesce(response.came -> 'suspected', '[]') AS suspected,
    response.stage = 'removed' AS removed
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.held
    AND response.stage IN ('waiting', 'removed')
ORDER BY removed, response.number DESC LIMIT 500;

-- name: let_through
-- Takes a response that is held for a person's.
WITH through AS (
    UPDATE response SET held = false, stage = 'complete' FROM form
    WHERE form.id = response.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = %(number)s AND response.held AND response.stage = 'waiting'
    RETURNING response.form_id, response.number
), happened AS (
    INSERT INTO event (form_id, number, kind, who, person_id)
    SELECT form_id, number, kind, 'person', %(person)s FROM through, unnest(ARRAY['let through', 'complete']) AS kind
)
SELECT number FROM through;

-- name: move_held
-- Removes a response that is held, or holds it again; each time is an event of its own.
WITH moved AS (
    UPDATE response SET stage = %(to)s FROM form
    WHERE form.id = response.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
        AND response.number = %(number)s AND response.held AND response.stage = %(from)s
    RETURNING response.form_id, response.number
), happened AS (
    INSERT INTO event (form_id, number, kind, key, who, person_id)
    SELECT form_id, number, %(kind)s, now()::text, 'person', %(person)s FROM moved
)
SELECT number FROM moved;

-- name: forget_removed
-- Forgets for ever what was removed so many days ago, but for what money was paid for; its files belong to nothing then.
WITH over AS (
    SELECT form_id, number FROM response
    WHERE response.stage = 'removed' AND (response.held OR NOT EXISTS (
        SELECT FROM payment WHERE payment.form_id = response.form_id AND payment.number = response.number))
    AND NOT EXISTS (
        SELECT FROM event WHERE event.form_id = response.form_id AND event.number = response.number
            AND event.kind = 'removed' AND event.at > now() - make_interval(days => %(days)s))
), freed AS (
    UPDATE upload SET response_number = NULL FROM over
    WHERE upload.form_id = over.form_id AND upload.response_number = over.number
), gone AS (
    DELETE FROM response USING over WHERE response.form_id = over.form_id AND response.number = over.number
    RETURNING response.form_id
)
UPDATE response_counter SET gone = response_counter.gone + counted.count
FROM (SELECT form_id, count(*) FROM gone GROUP BY form_id) AS counted
WHERE response_counter.form_id = counted.form_id;

-- name: how_it_came
-- By which way a response of a form of the team came, by which sealed link, and who was signed in.
SELECT response.came, coalesce(link_batch.name, '') AS batch, response.told -> 'visitor' AS visitor
FROM response JOIN form ON form.id = response.form_id
LEFT JOIN sealed_link ON sealed_link.id = response.sealed_link
LEFT JOIN link_batch ON link_batch.id = sealed_link.batch_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s;

-- name: find_received
-- A response by its number, for who handed it in, with where its form is.
SELECT response.number, response.edition, response.answers, response.told, form.slug, form.sites, team.slug AS team_slug
FROM response JOIN form ON form.id = response.form_id JOIN team ON team.id = form.team_id
WHERE form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s AND response.stage <> 'removed';

-- name: set_booking
-- How the slots of a response stand, and for which of them it waits, by the names of their claims; NULL for as before.
UPDATE response SET booking = %(booking)s,
    told = CASE WHEN %(waiting)s::text[] IS NULL THEN told
        WHEN %(waiting)s::text[] = '{}' THEN told - 'waiting'
        ELSE told || jsonb_build_object('waiting', to_jsonb(%(waiting)s::text[])) END
WHERE form_id = %(form)s AND number = %(number)s;

-- name: lock_received
-- How a response stands, kept from others until the transaction ends.
SELECT stage, payment, decision, booking, answers, computed FROM response
WHERE form_id = %(form)s AND number = %(number)s AND stage <> 'removed' FOR UPDATE;

-- name: facets_of
-- How the slots of a response stand, and what was decided of it.
SELECT booking, decision FROM response WHERE form_id = %(form)s AND number = %(number)s;

-- name: add_event
-- Notes something that happened to a response; no row where that news had come before.
INSERT INTO event (form_id, number, kind, key, who, person_id, data)
VALUES (%(form)s, %(number)s, %(kind)s, %(key)s, %(who)s, %(person)s, %(data)s)
ON CONFLICT (form_id, number, kind, key) DO NOTHING
RETURNING id;

-- name: count_changes
-- How often a response was changed since it was handed in: corrected, another slot, decided.
SELECT count(*) FROM event
WHERE form_id = %(form)s AND number = %(number)s
    AND kind IN ('corrected', 'moved up', 'rebooked', 'cancelled', 'approved', 'denied', 'sent again');
