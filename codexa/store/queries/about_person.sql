-- name: by_payer_or_link
-- The responses of a form whose payer has an address, or whose link brought it.
SELECT number FROM payment WHERE form_id = %(form)s AND lower(payer ->> 'email') = %(email)s
UNION
SELECT response.number FROM response JOIN sealed_link ON sealed_link.id = response.sealed_link
WHERE response.form_id = %(form)s AND lower(sealed_link.email) = %(email)s
UNION
SELECT number FROM response
WHERE form_id = %(form)s AND told -> 'link' <> '{}'
    AND EXISTS (SELECT FROM jsonb_each_text(told -> 'link') AS brought WHERE lower(brought.value) = %(email)s);

-- name: forget_links
-- Forgets an address of sealed links, and what they would bring; such a link opens the form no more.
UPDATE sealed_link SET email = '', given = '{}', ended_at = coalesce(sealed_link.ended_at, now())
FROM form WHERE form.id = sealed_link.form_id AND form.team_id = %(team)s AND lower(sealed_link.email) = %(email)s;

-- name: forget_errands
-- Forgets an address of mails that were sent beside responses.
UPDATE errand SET about = about - 'to'
WHERE team_id = %(team)s AND state <> 'waiting' AND lower(about ->> 'to') = %(email)s;

-- name: records_by_address
-- Records of the team's tables, removed ones too, that have a text somewhere, now or before; by table and number.
SELECT record.table_id, data_table.name AS table_name, data_table.definition, record.number, record.kept,
    (SELECT coalesce(jsonb_agg(before), '[]') FROM record_change
        WHERE (record_change.table_id, record_change.number) = (record.table_id, record.number)
            AND before IS NOT NULL) AS before
FROM record JOIN data_table ON data_table.id = record.table_id
WHERE data_table.team_id = %(team)s AND (record.words LIKE %(pattern)s OR EXISTS (SELECT FROM record_change
    WHERE (record_change.table_id, record_change.number) = (record.table_id, record.number)
        AND before::text ILIKE %(pattern)s))
ORDER BY data_table.name, record.table_id, record.number LIMIT %(most)s;

-- name: forget_records
-- Forgets records of a table of the team for good, with their history.
DELETE FROM record USING data_table WHERE data_table.id = record.table_id AND data_table.team_id = %(team)s
    AND record.table_id = %(table)s AND record.number = ANY(%(numbers)s);
