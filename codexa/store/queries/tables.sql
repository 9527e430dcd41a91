-- name: insert_table
-- Makes a table of the team.
INSERT INTO data_table (team_id, name, definition) VALUES (%(team)s, %(name)s, %(definition)s) RETURNING id;

-- name: list_tables
-- The team's tables with how many records each has, by name.
SELECT data_table.id, data_table.name, data_table.changed_at, seen_by, seen_groups, changed_groups, jsonb_array_length(definition -> 'columns') AS columns,
    (SELECT count(*) FROM record WHERE table_id = data_table.id AND removed_at IS NULL) AS records
FROM data_table WHERE team_id = %(team)s AND deleted_at IS NULL ORDER BY lower(data_table.name), data_table.id;

-- name: find_table
-- A table of the team.
SELECT id, name, definition, revision, seen_by, changed_by, seen_groups, changed_groups FROM data_table
WHERE team_id = %(team)s AND id = %(table)s AND deleted_at IS NULL;

-- name: find_tables
-- Some tables, as far as they are the team's.
SELECT id, name, definition, revision, seen_by, changed_by, seen_groups, changed_groups FROM data_table
WHERE team_id = %(team)s AND id = ANY(%(tables)s) AND deleted_at IS NULL;

-- name: set_rights
-- Says from which role on a table is seen and changed.
UPDATE data_table SET seen_by = %(seen_by)s, changed_by = %(changed_by)s, seen_groups = %(seen_groups)s,
    changed_groups = %(changed_groups)s
WHERE team_id = %(team)s AND id = %(table)s AND deleted_at IS NULL RETURNING id;

-- name: any_table
-- A table, whosever it is.
SELECT id, name, definition, revision FROM data_table WHERE id = %(table)s AND deleted_at IS NULL;

-- name: lock_table
-- A table of the team, whose columns nobody else changes until the transaction ends; records may change meanwhile.
SELECT id, name, definition, revision, seen_by, changed_by, seen_groups, changed_groups FROM data_table
WHERE team_id = %(team)s AND id = %(table)s AND deleted_at IS NULL FOR NO KEY UPDATE;

-- name: lock_table_of_form
-- The same of a table of the team that has a form.
SELECT data_table.id, data_table.name, data_table.definition, data_table.revision
FROM data_table JOIN form ON form.team_id = data_table.team_id
WHERE form.id = %(form)s AND data_table.id = %(table)s AND data_table.deleted_at IS NULL FOR NO KEY UPDATE OF data_table;

-- name: tables_of_form
-- Some tables of the team that has a form.
SELECT data_table.id, data_table.name, data_table.definition, data_table.revision
FROM data_table JOIN form ON form.team_id = data_table.team_id
WHERE form.id = %(form)s AND data_table.id = ANY(%(tables)s) AND data_table.deleted_at IS NULL;

-- name: forms_that_know
-- The forms of a table's team whose live edition knows the table.
SELECT form.id, form.live_edition FROM form
    JOIN data_table ON data_table.team_id = form.team_id AND data_table.id = %(table)s
    JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.deleted_at IS NULL
    AND edition.definition -> 'tables' @> jsonb_build_array(jsonb_build_object('id', %(known_as)s::text))
ORDER BY form.id;

-- name: forms_that_offer
-- The forms of a table's team whose live edition offers its records to be chosen, by name.
SELECT form.id, form.name FROM form
    JOIN data_table ON data_table.team_id = form.team_id AND data_table.id = %(table)s
    JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.deleted_at IS NULL
    AND edition.definition -> 'tables' @> jsonb_build_array(jsonb_build_object('id', %(known_as)s::text))
    AND jsonb_path_exists(edition.definition -> 'pages',
        '$.** ? (@.type == "record_choice" && @.table == $table)', jsonb_build_object('table', %(known_as)s::text))
ORDER BY lower(form.name), form.id;

-- name: note_drift
-- Notes what the live edition of a form names and no table has any more; nothing where another is live by now.
UPDATE form SET tables_changed = %(words)s WHERE id = %(form)s AND live_edition = %(edition)s;

-- name: note_origin
-- Notes which response made or changed a record.
INSERT INTO record_origin (table_id, number, form_id, response_number, kind)
VALUES (%(table)s, %(number)s, %(form)s, %(response)s, %(kind)s) ON CONFLICT DO NOTHING;

-- name: origins_of
-- Which responses of forms that are there made or changed a record, newest first.
SELECT record_origin.form_id, form.name AS form_name, record_origin.response_number, record_origin.kind, record_origin.at
FROM record_origin JOIN form ON form.id = record_origin.form_id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL
    AND record_origin.table_id = %(table)s AND record_origin.number = %(number)s
ORDER BY record_origin.at DESC LIMIT 100;

-- name: set_definition
-- Gives a table other columns.
UPDATE data_table SET definition = %(definition)s, name = %(name)s, revision = revision + 1, changed_at = now()
WHERE id = %(table)s RETURNING revision;

-- name: delete_table
-- Takes a table away from the team; what it holds is forgotten after a while.
UPDATE data_table SET deleted_at = now() WHERE team_id = %(team)s AND id = %(table)s AND deleted_at IS NULL RETURNING id;

-- name: forget_deleted
-- Forgets tables that were deleted, and records that were removed, for good.
WITH tables AS (DELETE FROM data_table WHERE deleted_at < now() - make_interval(days => %(days)s)),
    records AS (DELETE FROM record WHERE removed_at < now() - make_interval(days => %(days)s))
SELECT 1 AS done;

-- name: next_numbers
-- Takes so many numbers for new records, and returns the last of them.
UPDATE data_table SET last_number = last_number + %(count)s, changed_at = now() WHERE id = %(table)s
RETURNING last_number;

-- name: count_records
-- How many records there are.
SELECT count(*) AS count FROM record WHERE table_id = %(table)s AND removed_at IS NULL;

-- name: lock_records
-- Records of a table, kept from others until the transaction ends; in one order, so that two wait for each other once.
SELECT number, kept, name, words, revision, offered, published_at FROM record
WHERE table_id = %(table)s AND number = ANY(%(numbers)s) AND (removed_at IS NOT NULL) = %(removed)s
ORDER BY number FOR UPDATE;

-- name: insert_records
-- Takes up records.
INSERT INTO record (table_id, number, kept, name, words, keys, published_at)
SELECT %(table)s, number, kept, name, words, string_to_array(keys, chr(31)), CASE WHEN %(published)s THEN now() END
FROM unnest(%(numbers)s::integer[], %(kept)s::jsonb[], %(names)s::text[], %(words)s::text[], %(keys)s::text[])
    AS new (number, kept, name, words, keys);

-- name: note_changes
-- Keeps what records had in their history.
INSERT INTO record_change (table_id, number, kind, before, person_id)
SELECT table_id, number, 'changed', kept, %(person)s FROM record
WHERE table_id = %(table)s AND number = ANY(%(numbers)s) ORDER BY number;

-- name: change_records
-- Gives records other values.
UPDATE record SET kept = new.kept, name = new.name, words = new.words, keys = string_to_array(new.keys, chr(31)),
    revision = revision + 1, changed_at = now()
FROM unnest(%(numbers)s::integer[], %(kept)s::jsonb[], %(names)s::text[], %(words)s::text[], %(keys)s::text[])
    AS new (number, kept, name, words, keys)
WHERE record.table_id = %(table)s AND record.number = new.number;

-- name: who_have
-- Which records have such values of columns in which no two may have the same.
SELECT column_id, value, number FROM record_once
    JOIN unnest(%(columns)s::text[], %(values)s::text[]) AS asked (column_id, value) USING (column_id, value)
WHERE table_id = %(table)s;

-- name: free_values
-- Gives back what all records had alone, or these.
DELETE FROM record_once WHERE table_id = %(table)s
    AND (%(numbers)s::integer[] IS NULL OR number = ANY(%(numbers)s::integer[]));

-- name: take_many
-- Takes values that only one record may have; the first has each.
INSERT INTO record_once (table_id, column_id, value, number)
SELECT %(table)s, column_id, value, number
FROM unnest(%(columns)s::text[], %(values)s::text[], %(numbers)s::integer[]) AS wanted (column_id, value, number)
ON CONFLICT DO NOTHING;

-- name: first_twice
-- A value that another record has, with both their numbers.
SELECT wanted.column_id, record_once.number AS first, wanted.number AS second
FROM unnest(%(columns)s::text[], %(values)s::text[], %(numbers)s::integer[]) AS wanted (column_id, value, number)
    JOIN record_once ON record_once.table_id = %(table)s AND record_once.column_id = wanted.column_id
        AND record_once.value = wanted.value AND record_once.number <> wanted.number
LIMIT 1;

-- name: put_records
-- Gives many records other values, which are no change of theirs.
UPDATE record SET kept = put.kept, name = put.name, words = put.words, keys = string_to_array(put.keys, chr(31))
FROM unnest(%(numbers)s::integer[], %(kept)s::jsonb[], %(names)s::text[], %(words)s::text[], %(keys)s::text[])
    AS put (number, kept, name, words, keys)
WHERE record.table_id = %(table)s AND record.number = put.number;

-- name: remove_records
-- Removes records or brings them back, and notes it.
WITH gone AS (
    UPDATE record SET removed_at = CASE WHEN %(removed)s THEN now() END
    WHERE table_id = %(table)s AND number = ANY(%(numbers)s) AND (removed_at IS NULL) = %(removed)s
    RETURNING table_id, number
)
INSERT INTO record_change (table_id, number, kind, person_id)
SELECT table_id, number, CASE WHEN %(removed)s THEN 'removed' ELSE 'brought back' END, %(person)s FROM gone;

-- name: all_records
-- Records of a table after a number, in order.
SELECT number, kept, name, words, revision, offered FROM record
WHERE table_id = %(table)s AND removed_at IS NULL AND number > %(after)s ORDER BY number LIMIT %(most)s;

-- name: forget_names
-- Forgets which records these name.
DELETE FROM record_reference WHERE table_id = %(table)s AND number = ANY(%(numbers)s);

-- name: note_names
-- Keeps which records these name.
INSERT INTO record_reference (table_id, number, column_id, to_table, to_number)
SELECT %(table)s, number, column_id, to_table, to_number
FROM unnest(%(numbers)s::integer[], %(columns)s::text[], %(to_tables)s::uuid[], %(to_numbers)s::integer[])
    AS named (number, column_id, to_table, to_number)
ON CONFLICT DO NOTHING;

-- name: who_name
-- Which records, that are there, name one of these: how many by table and column.
SELECT record_reference.to_number, data_table.id AS table_id, data_table.name AS table_name, record_reference.column_id,
    count(*) AS count
FROM record_reference JOIN record USING (table_id, number) JOIN data_table ON data_table.id = record_reference.table_id
WHERE to_table = %(table)s AND to_number = ANY(%(numbers)s) AND record.removed_at IS NULL
    AND data_table.deleted_at IS NULL
GROUP BY record_reference.to_number, data_table.id, data_table.name, record_reference.column_id
ORDER BY record_reference.to_number, data_table.name;

-- name: naming_records
-- The records that name one of these, some after another, in one order.
SELECT DISTINCT record_reference.table_id, record_reference.number FROM record_reference
WHERE to_table = %(table)s AND to_number = ANY(%(numbers)s)
    AND (record_reference.table_id, record_reference.number) > (%(after_table)s, %(after_number)s)
ORDER BY record_reference.table_id, record_reference.number LIMIT %(most)s;

-- name: names_of
-- What these records are called.
SELECT number, name FROM record WHERE table_id = %(table)s AND number = ANY(%(numbers)s);

-- name: offered_names
-- What records that are offered are called.
SELECT name FROM record WHERE table_id = %(table)s AND removed_at IS NULL AND offered AND name <> ''
ORDER BY number LIMIT %(most)s;

-- name: set_offered
-- Has records offered to be chosen, or no more.
UPDATE record SET offered = %(offered)s WHERE table_id = %(table)s AND number = ANY(%(numbers)s)
    AND removed_at IS NULL AND offered <> %(offered)s
RETURNING number;

-- name: tables_without_keys
-- Tables of which some records have no keys yet, with their definitions.
SELECT data_table.id, data_table.name, data_table.definition, data_table.revision FROM data_table
WHERE EXISTS (SELECT 1 FROM record WHERE table_id = data_table.id AND keys IS NULL);

-- name: records_without_keys
-- Some records of a table that have no keys yet, removed ones too.
SELECT number, kept, name, words, revision, offered FROM record WHERE table_id = %(table)s AND keys IS NULL
ORDER BY number LIMIT %(most)s;

-- name: list_changes
-- What happened to a record, newest first.
SELECT record_change.kind, record_change.before, record_change.at, person.name AS person
FROM record_change JOIN data_table ON data_table.id = record_change.table_id
    LEFT JOIN person ON person.id = record_change.person_id
WHERE data_table.team_id = %(team)s AND record_change.table_id = %(table)s AND record_change.number = %(number)s
ORDER BY record_change.id DESC LIMIT 200;

-- name: find_record
-- One record of a table of the team, removed or not.
SELECT record.number, record.kept, record.name, record.words, record.revision, record.offered, record.created_at
FROM record JOIN data_table ON data_table.id = record.table_id
WHERE data_table.team_id = %(team)s AND data_table.deleted_at IS NULL
    AND record.table_id = %(table)s AND record.number = %(number)s;
