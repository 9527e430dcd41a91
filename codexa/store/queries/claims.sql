-- name: take
-- Takes so many of a thing where so many are left, and nobody waits for what is left; no row where not. Of what is
-- planned (slots) there are as many as the live edition has. Whoever takes of it waits for the commit.
INSERT INTO claimable (form_id, name, taken)
SELECT %(form)s, %(name)s, %(quantity)s WHERE %(quantity)s <= %(capacity)s
ON CONFLICT (form_id, name) DO UPDATE SET taken = claimable.taken + %(quantity)s
WHERE claimable.taken + %(quantity)s <= least(%(capacity)s, claimable.capacity) AND NOT claimable.closed
    AND NOT EXISTS (
        SELECT FROM claim
        WHERE claim.form_id = claimable.form_id AND claim.name = claimable.name
            AND claim.waiting_since IS NOT NULL AND claim.released_at IS NULL
            AND claim.quantity <= least(%(capacity)s, claimable.capacity) - claimable.taken
    )
RETURNING taken;

-- name: take_places
-- Takes so many places of a record where so many are left, or it has no end; no row where not. What is taken is counted
-- as the claim is kept; until then nobody else takes of it.
INSERT INTO record_taken (table_id, number, column_id, taken)
SELECT table_id, number, %(column)s, 0 FROM record
WHERE table_id = %(table)s AND number = %(number)s AND removed_at IS NULL
    AND coalesce(%(quantity)s <= CASE WHEN kept ->> %(column)s ~ '^-?[0-9]+([.][0-9]+)?$'
        THEN (kept ->> %(column)s)::numeric END, TRUE)
ON CONFLICT (table_id, number, column_id) DO UPDATE SET taken = record_taken.taken
WHERE coalesce(record_taken.taken + %(quantity)s <= (SELECT CASE WHEN kept ->> %(column)s ~ '^-?[0-9]+([.][0-9]+)?$'
    THEN (kept ->> %(column)s)::numeric END FROM record WHERE table_id = %(table)s AND number = %(number)s), TRUE)
RETURNING taken;

-- name: wait_for
-- Whether there is no room for so many, or others wait for what there is, so that they are waited for. Whoever takes of it, or gives back, waits for the
-- commit: nobody waits for what is free.
INSERT INTO claimable (form_id, name, taken) VALUES (%(form)s, %(name)s, 0)
ON CONFLICT (form_id, name) DO UPDATE SET taken = claimable.taken
RETURNING NOT closed AND (taken + %(quantity)s > least(%(capacity)s, capacity) OR EXISTS (
    SELECT FROM claim
    WHERE claim.form_id = claimable.form_id AND claim.name = claimable.name
        AND claim.waiting_since IS NOT NULL AND claim.released_at IS NULL
        AND claim.quantity <= least(%(capacity)s, claimable.capacity) - claimable.taken
)) AS full;

-- name: keep
-- Tells what a response has taken, or waits for.
INSERT INTO claim (form_id, number, name, quantity, waiting_since)
VALUES (%(form)s, %(number)s, %(name)s, %(quantity)s,
    CASE WHEN %(waiting)s THEN coalesce(%(since)s::timestamptz, clock_timestamp()) END);

-- name: of_response
-- What a response has taken of what is ordered, or waits for since then.
SELECT name, quantity, waiting_since FROM claim
WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL
    AND name ~ '^(stock|code|record|slot|slots-of):';

-- name: give_back
-- Gives back so many of a thing.
UPDATE claimable SET taken = taken - %(quantity)s WHERE form_id = %(form)s AND name = %(name)s;

-- name: forget_ordered
-- What a response had taken of what is ordered is told anew.
DELETE FROM claim
WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL
    AND name ~ '^(stock|code|record|slot|slots-of):';

-- name: release
-- Gives back what a response had taken, once, and waits for nothing any more.
WITH given_back AS (
    UPDATE claim SET released_at = now()
    WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL
    RETURNING name, quantity, waiting_since
)
UPDATE claimable SET taken = taken - given_back.quantity
FROM given_back
WHERE claimable.form_id = %(form)s AND claimable.name = given_back.name AND given_back.waiting_since IS NULL;

-- name: take_again
-- Takes again what a response had given back, whatever is left; of slots nothing.
WITH taken_again AS (
    UPDATE claim SET released_at = NULL
    WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NOT NULL
        AND name NOT LIKE 'slot:%%'
    RETURNING name, quantity
)
UPDATE claimable SET taken = taken + taken_again.quantity
FROM taken_again WHERE claimable.form_id = %(form)s AND claimable.name = taken_again.name;

-- name: given_back
-- The slots that a response had and gave back, or waited for.
SELECT name, quantity, waiting_since FROM claim
WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NOT NULL AND name LIKE 'slot:%%';

-- name: has_again
-- A slot that a response had given back is its own again, or is waited for again.
UPDATE claim SET released_at = NULL WHERE form_id = %(form)s AND number = %(number)s AND name = %(name)s;

-- name: taken
-- How much is taken of each thing that a form sells or gives, where anything is; people and links are counted, and never
-- told. Of a slot that is closed, or that the live edition has no more, all is; what others wait for counts as taken. Of
-- slots that are over nothing is asked any more.
WITH waited_for AS (
    SELECT DISTINCT claim.name FROM claim
        JOIN claimable ON claimable.form_id = claim.form_id AND claimable.name = claim.name
    WHERE claim.form_id = %(form)s AND claim.waiting_since IS NOT NULL AND claim.released_at IS NULL
        AND claim.quantity <= claimable.capacity - claimable.taken
)
SELECT name, CASE WHEN closed OR capacity = 0 THEN 2147483647
    WHEN name IN (SELECT name FROM waited_for) THEN capacity ELSE taken END AS taken
FROM claimable
WHERE form_id = %(form)s AND (taken > 0 OR closed OR capacity = 0) AND (
    name LIKE 'stock:%%' OR name LIKE 'code:%%'
    OR (name LIKE 'slot:%%' AND split_part(name, ':', 3) >= %(since)s))
UNION ALL
SELECT claimable.name, claimable.capacity FROM waited_for JOIN claimable ON claimable.name = waited_for.name
WHERE claimable.form_id = %(form)s AND claimable.taken = 0 AND NOT claimable.closed;

-- name: plan_slots
-- The slots of the live edition with their places; what it has not has none. What is taken stays taken.
WITH planned AS (
    SELECT name, places FROM unnest(%(names)s::text[], %(places)s::bigint[]) AS planned (name, places)
), gone AS (
    UPDATE claimable SET capacity = 0
    WHERE form_id = %(form)s AND name LIKE 'slot:%%' AND NOT EXISTS (SELECT FROM planned WHERE planned.name = claimable.name)
)
INSERT INTO claimable (form_id, name, taken, capacity) SELECT %(form)s, name, 0, places FROM planned
ON CONFLICT (form_id, name) DO UPDATE SET capacity = excluded.capacity;

-- name: waited_for
-- Of what there is room again, and who waits for it.
SELECT DISTINCT claim.name FROM claim JOIN claimable ON claimable.form_id = claim.form_id AND claimable.name = claim.name
WHERE claim.form_id = %(form)s AND claim.waiting_since IS NOT NULL AND claim.released_at IS NULL
    AND claim.quantity <= claimable.capacity - claimable.taken AND NOT claimable.closed;

-- name: lock_slot
-- How much is taken of a slot, which nobody takes or gives back until the transaction ends.
SELECT taken, capacity, closed FROM claimable WHERE form_id = %(form)s AND name = %(name)s FOR UPDATE;

-- name: in_line
-- Who waits for a slot, who waits longest first; those only whose response counts.
SELECT claim.number, claim.quantity FROM claim
JOIN response ON response.form_id = claim.form_id AND response.number = claim.number
WHERE claim.form_id = %(form)s AND claim.name = %(name)s AND claim.waiting_since IS NOT NULL AND claim.released_at IS NULL
    AND response.stage IN ('complete', 'waiting')
ORDER BY claim.waiting_since, claim.number;

-- name: get_slot
-- Who waited for a slot has it now.
WITH moved_up AS (
    UPDATE claim SET waiting_since = NULL
    WHERE form_id = %(form)s AND number = %(number)s AND name = %(name)s AND waiting_since IS NOT NULL
    RETURNING name, quantity
)
UPDATE claimable SET taken = taken + moved_up.quantity
FROM moved_up WHERE claimable.form_id = %(form)s AND claimable.name = moved_up.name;

-- name: close_slot
-- Closes a slot for everybody, or opens it again; what is taken stays taken.
UPDATE claimable SET closed = %(closed)s WHERE form_id = %(form)s AND name = %(name)s AND capacity > 0
RETURNING name;

-- name: slots_between
-- The slots of a block that begin from one day to another, in order of time.
SELECT name, taken, capacity, closed FROM claimable
WHERE form_id = %(form)s AND name >= %(first)s AND name < %(last)s AND (capacity > 0 OR taken > 0)
ORDER BY name COLLATE "C";

-- name: who_has_slots
-- Who has these slots, or waits for them; who waits longest first.
SELECT claim.name, claim.number, claim.quantity, claim.waiting_since FROM claim
JOIN response ON response.form_id = claim.form_id AND response.number = claim.number
WHERE claim.form_id = %(form)s AND claim.name = ANY(%(names)s) AND claim.released_at IS NULL
    AND response.stage <> 'removed'
ORDER BY claim.name, claim.waiting_since NULLS FIRST, claim.number;

-- name: forget_waiting
-- A response waits for this no more.
DELETE FROM claim
WHERE form_id = %(form)s AND number = %(number)s AND name = %(name)s AND waiting_since IS NOT NULL AND released_at IS NULL;

-- name: release_slots
-- Gives back the slots that a response had, and what one person may have of them; it waits for none any more.
WITH given_back AS (
    UPDATE claim SET released_at = now()
    WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL AND name LIKE 'slot%%'
    RETURNING name, quantity, waiting_since
)
UPDATE claimable SET taken = taken - given_back.quantity
FROM given_back
WHERE claimable.form_id = %(form)s AND claimable.name = given_back.name AND given_back.waiting_since IS NULL;
