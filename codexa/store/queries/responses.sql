-- name: find_by_key
-- The response that was kept under an idempotency key.
SELECT number, content_digest FROM response WHERE form_id = %(form)s AND idempotency_key = %(key)s;

-- name: insert_response
-- Keeps a response under the next number of its form; the row of the form is the queue of those who wait for one.
WITH numbered AS (
    UPDATE form SET last_response = last_response + 1 WHERE id = %(form)s RETURNING id, last_response
)
INSERT INTO response (form_id, number, edition, received_at, answers, computed, path, confirmation, idempotency_key,
    content_digest)
SELECT id, last_response, %(edition)s, coalesce(%(received_at)s, now()), %(answers)s, %(computed)s, %(path)s,
    %(confirmation)s, %(key)s, %(digest)s
FROM numbered
RETURNING number;

-- name: set_computed
-- Keeps what could be worked out only once the response had its number.
UPDATE response SET computed = %(computed)s WHERE form_id = %(form)s AND number = %(number)s;

-- name: page_of_responses
-- Responses of a form of the team, newest first.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY response.received_at DESC, response.number DESC
LIMIT %(limit)s OFFSET %(offset)s;

-- name: count_responses
-- How many there are.
SELECT count(*) FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL;

-- name: all_responses
-- All responses of a form of the team, newest first, for an export.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY response.received_at DESC, response.number DESC;

-- name: find_response
-- One response of a form of the team.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed
FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response.number = %(number)s;
