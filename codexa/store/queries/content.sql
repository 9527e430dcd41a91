-- name: find_publication
-- A table of a team whose records are published at an address.
SELECT data_table.id, data_table.name, data_table.definition, data_table.revision
FROM data_table JOIN team ON team.id = data_table.team_id
WHERE team.slug = %(team)s AND data_table.definition -> 'published' ->> 'address' = %(address)s
    AND data_table.deleted_at IS NULL;

-- name: published_records
-- The published records of a table from a place on, the newest first.
SELECT number, name, kept, published_at, changed_at FROM record
WHERE table_id = %(table)s AND published_at IS NOT NULL AND removed_at IS NULL
ORDER BY published_at DESC, number DESC LIMIT %(most)s OFFSET %(first)s;

-- name: hold_addresses
-- Lets nobody else of the team take an address until the transaction ends: who looks whether one is free can have it.
SELECT pg_advisory_xact_lock(hashtextextended('content ' || %(team)s::text, 0));

-- name: is_taken
-- Whether another table of the team is published at an address.
SELECT 1 AS taken FROM data_table
WHERE team_id = %(team)s AND id <> %(table)s AND deleted_at IS NULL
    AND definition -> 'published' ->> 'address' = %(address)s;

-- name: publish
-- Publishes records or takes them back, and notes it of those that were not so before.
WITH changed AS (
    UPDATE record SET published_at = CASE WHEN %(published)s THEN now() END
    WHERE table_id = %(table)s AND number = ANY(%(numbers)s) AND removed_at IS NULL
        AND (published_at IS NULL) = %(published)s
    RETURNING table_id, number
), noted AS (
    INSERT INTO record_change (table_id, number, kind, person_id)
    SELECT table_id, number, CASE WHEN %(published)s THEN 'published' ELSE 'taken back' END, %(person)s FROM changed
)
SELECT number FROM changed ORDER BY number;
