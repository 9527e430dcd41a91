-- name: lock
-- Responses of a form that can be anonymised, kept from others until the transaction ends; what waits, or is still
-- filled in, cannot.
SELECT number, edition, answers, computed, told FROM response
WHERE form_id = %(form)s AND number = ANY(%(numbers)s) AND stage IN ('complete', 'expired', 'removed') AND NOT held
    AND payment NOT IN ('due', 'pending')
ORDER BY number FOR UPDATE;

-- name: replace
-- Puts what is left of responses in their place; under its key none is sent again.
UPDATE response SET answers = left_over.answers, computed = left_over.computed, told = left_over.told,
    came = response.came - 'suspected', member_id = NULL, filled_by = NULL, idempotency_key = 'anonymised ' || gen_random_uuid(), content_digest = ''
FROM jsonb_to_recordset(%(left_over)s) AS left_over (number integer, answers jsonb, computed jsonb, told jsonb)
WHERE response.form_id = %(form)s AND response.number = left_over.number;

-- name: forget_words
-- Takes from what happened to responses what people wrote, and what they were corrected from.
UPDATE event SET data = CASE kind
        WHEN 'noted' THEN jsonb_build_object('note', '')
        WHEN 'corrected' THEN jsonb_build_object('because', '', 'changes', '[]'::jsonb)
        ELSE data - 'result' END
WHERE form_id = %(form)s AND number = ANY(%(numbers)s)
    AND (kind IN ('noted', 'corrected') OR data ? 'result');

-- name: forget_runs
-- Forgets what was sent for responses, what was answered, and what still waits to be sent.
DELETE FROM run WHERE form_id = %(form)s AND number = ANY(%(numbers)s);

-- name: forget_kept
-- Forgets what was entered before it was handed in.
DELETE FROM kept_answers WHERE form_id = %(form)s AND number = ANY(%(numbers)s);

-- name: forget_links
-- Ends the sealed links that only these responses could come by, and forgets whom they named.
UPDATE sealed_link SET given = '{}', email = '', ended_at = coalesce(ended_at, now())
FROM response WHERE response.form_id = %(form)s AND response.number = ANY(%(numbers)s)
    AND sealed_link.id = response.sealed_link AND sealed_link.uses = 1;

-- name: forget_files
-- Forgets the files of fields of responses, and tells which they are.
DELETE FROM upload WHERE form_id = %(form)s AND response_number = ANY(%(numbers)s) AND NOT id = ANY(%(kept)s)
RETURNING id;

-- name: happened
-- Tells that responses were anonymised, by a person or the clock.
INSERT INTO event (form_id, number, kind, key, who, person_id)
SELECT %(form)s, number, 'anonymised', gen_random_uuid()::text,
    CASE WHEN %(person)s::uuid IS NULL THEN 'clock' ELSE 'person' END, %(person)s
FROM unnest(%(numbers)s::integer[]) AS number;
