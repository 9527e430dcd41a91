-- name: want
-- Notes columns by which is filtered or sorted, where one of them is new, and there are not too many.
UPDATE ledger SET wanted = ARRAY(SELECT DISTINCT unnest(wanted || %(columns)s::text[]))
WHERE form_id = %(form)s AND NOT wanted @> %(columns)s::text[] AND cardinality(wanted) < 60
RETURNING form_id;

-- name: broken_indexes
-- Indexes that were never finished.
SELECT class.relname AS name FROM pg_index JOIN pg_class AS class ON class.oid = pg_index.indexrelid
JOIN pg_namespace ON pg_namespace.oid = class.relnamespace
WHERE pg_namespace.nspname = 'ledgers' AND class.relname LIKE %(prefix)s AND NOT pg_index.indisvalid;
