-- name: find_ledger
-- A form's ledger.
SELECT columns, upto, wanted FROM ledger WHERE form_id = %(form)s;

-- name: insert_ledger
-- Begins a form's ledger, where it has none.
INSERT INTO ledger (form_id) VALUES (%(form)s) ON CONFLICT DO NOTHING;

-- name: lock_ledger
-- Lets one at a time write into a ledger.
SELECT upto FROM ledger WHERE form_id = %(form)s FOR UPDATE;

-- name: set_columns
-- Notes what a ledger's columns hold.
UPDATE ledger SET columns = %(columns)s WHERE form_id = %(form)s AND columns <> %(columns)s;

-- name: delete_ledger
-- Ends a form's ledger.
DELETE FROM ledger WHERE form_id = %(form)s;

-- name: behind
-- How many responses a form's ledger has yet to take up. Numbers are committed in their order.
SELECT coalesce((SELECT last_number FROM response_counter WHERE form_id = %(form)s), 0)
    - coalesce((SELECT upto FROM ledger WHERE form_id = %(form)s), 0)
    + (SELECT count(*) FROM (SELECT FROM ledger_due WHERE form_id = %(form)s LIMIT 100000) AS due) AS count;

-- name: turn
-- Grows with each response that comes, and with each that changes.
SELECT coalesce((SELECT last_number FROM response_counter WHERE form_id = %(form)s), 0)
    + greatest((SELECT max(id) FROM ledger_due WHERE form_id = %(form)s),
        (SELECT settled FROM ledger WHERE form_id = %(form)s), 0) AS turn;

-- name: last_number
-- The last number that a response of the form has had.
SELECT coalesce(max(last_number), 0) AS last_number FROM response_counter WHERE form_id = %(form)s;

-- name: new_sources
-- Responses of a form after a number, in order, as ledgers take them up.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed, response.told,
    response.stage, response.payment, response.decision, response.booking, response.at_part, response.status,
    response.test, response.held, response.came, response.sealed_link, sealed_link.batch_id AS batch, response.tags, response.person_id
FROM response LEFT JOIN sealed_link ON sealed_link.id = response.sealed_link
WHERE response.form_id = %(form)s AND response.number > %(after)s
ORDER BY response.number LIMIT %(most)s;

-- name: list_due
-- What changed first of a form's responses.
SELECT id, number FROM ledger_due WHERE form_id = %(form)s ORDER BY id LIMIT %(most)s;

-- name: sources
-- Responses by their numbers, as ledgers take them up.
SELECT response.number, response.edition, response.received_at, response.answers, response.computed, response.told,
    response.stage, response.payment, response.decision, response.booking, response.at_part, response.status,
    response.test, response.held, response.came, response.sealed_link, sealed_link.batch_id AS batch, response.tags, response.person_id
FROM response LEFT JOIN sealed_link ON sealed_link.id = response.sealed_link
WHERE response.form_id = %(form)s AND response.number = ANY(%(numbers)s);

-- name: move_on
-- Moves the last number that is in a ledger, where nobody else did.
UPDATE ledger SET upto = %(upto)s WHERE form_id = %(form)s AND upto = %(before)s RETURNING upto;

-- name: settle_due
-- Forgets changes that are being taken up, of responses that are in; those that somebody else has settled are not told.
DELETE FROM ledger_due WHERE id = ANY(%(ids)s) AND number <= %(upto)s RETURNING number;

-- name: note_settled
-- Notes the last change that was taken up.
UPDATE ledger SET settled = greatest(settled, %(last)s) WHERE form_id = %(form)s;

-- name: ask_for_filling
-- Notes that a job was asked for, where none was of late.
UPDATE ledger SET filling_since = now()
WHERE form_id = %(form)s AND (filling_since IS NULL OR filling_since < now() - interval '10 minutes')
RETURNING form_id;

-- name: filled
-- Notes that no job is at work any more.
UPDATE ledger SET filling_since = NULL WHERE form_id = %(form)s;

-- name: forget_due_of_none
-- Forgets changes of forms without a ledger; what was noted just now may belong to one that is being made.
DELETE FROM ledger_due WHERE at < now() - interval '1 day'
    AND NOT EXISTS (SELECT FROM ledger WHERE ledger.form_id = ledger_due.form_id);

-- name: left_over
-- Tables of ledgers that are there no more.
SELECT tables.tablename AS name FROM pg_tables AS tables
WHERE tables.schemaname = 'ledgers' AND NOT EXISTS (
    SELECT FROM ledger WHERE tables.tablename LIKE '%%' || replace(ledger.form_id::text, '-', ''));
