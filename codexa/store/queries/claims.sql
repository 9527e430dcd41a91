-- name: take
-- Takes so many of a thing where so many are left; no row where they are not. Whoever takes of it waits for the commit.
INSERT INTO claimable (form_id, name, taken)
SELECT %(form)s, %(name)s, %(quantity)s WHERE %(quantity)s <= %(capacity)s
ON CONFLICT (form_id, name) DO UPDATE SET taken = claimable.taken + %(quantity)s
WHERE claimable.taken + %(quantity)s <= %(capacity)s
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

-- name: keep
-- Tells what a response has taken.
INSERT INTO claim (form_id, number, name, quantity) VALUES (%(form)s, %(number)s, %(name)s, %(quantity)s);

-- name: of_response
-- What a response has taken of what is ordered.
SELECT name, sum(quantity) AS quantity FROM claim
WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL
    AND (name LIKE 'stock:%%' OR name LIKE 'code:%%' OR name LIKE 'record:%%')
GROUP BY name;

-- name: give_back
-- Gives back so many of a thing.
UPDATE claimable SET taken = taken - %(quantity)s WHERE form_id = %(form)s AND name = %(name)s;

-- name: forget_ordered
-- What a response had taken of what is ordered is told anew.
DELETE FROM claim
WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL
    AND (name LIKE 'stock:%%' OR name LIKE 'code:%%' OR name LIKE 'record:%%');

-- name: release
-- Gives back what a response had taken, once.
WITH given_back AS (
    UPDATE claim SET released_at = now()
    WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NULL
    RETURNING name, quantity
)
UPDATE claimable SET taken = taken - given_back.quantity
FROM given_back WHERE claimable.form_id = %(form)s AND claimable.name = given_back.name;

-- name: take_again
-- Takes again what a response had given back, whatever is left.
WITH taken_again AS (
    UPDATE claim SET released_at = NULL
    WHERE form_id = %(form)s AND number = %(number)s AND released_at IS NOT NULL
    RETURNING name, quantity
)
UPDATE claimable SET taken = taken + taken_again.quantity
FROM taken_again WHERE claimable.form_id = %(form)s AND claimable.name = taken_again.name;

-- name: taken
-- How much is taken of each thing that a form sells or gives; people and links are counted, and never told.
SELECT name, taken FROM claimable
WHERE form_id = %(form)s AND (name LIKE 'stock:%%' OR name LIKE 'code:%%');
