-- name: insert_key
-- Makes the next key of a form.
INSERT INTO seal_key (form_id, number, secret)
SELECT %(form)s, coalesce(max(number), 0) + 1, %(secret)s FROM seal_key WHERE form_id = %(form)s
RETURNING number;

-- name: newest_key
-- The key that signs new links.
SELECT number FROM seal_key WHERE form_id = %(form)s AND ended_at IS NULL ORDER BY number DESC LIMIT 1;

-- name: lock_keys
-- Lets one at a time make keys for a form of the team.
SELECT id FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL FOR UPDATE;

-- name: end_keys
-- Ends all keys of a form but one: links that they signed don't open any more.
UPDATE seal_key SET ended_at = now() WHERE form_id = %(form)s AND number <> %(keep)s AND ended_at IS NULL;

-- name: insert_batch
-- Begins links that are made together.
INSERT INTO link_batch (form_id, name, made_by) VALUES (%(form)s, %(name)s, %(person)s) RETURNING id;

-- name: copy_links
-- Takes links that were made together.
COPY sealed_link (batch_id, form_id, mark, key, given, until, uses, email) FROM STDIN;

-- name: find_link
-- A link by its mark, with the key that signed it.
SELECT sealed_link.id, sealed_link.batch_id AS batch, sealed_link.mark, sealed_link.given, sealed_link.until,
    sealed_link.uses, sealed_link.ended_at IS NOT NULL OR seal_key.ended_at IS NOT NULL AS ended, seal_key.secret,
    coalesce(claimable.taken, 0) AS used
FROM sealed_link
JOIN seal_key ON seal_key.form_id = sealed_link.form_id AND seal_key.number = sealed_link.key
LEFT JOIN claimable ON claimable.form_id = sealed_link.form_id AND claimable.name = 'link:' || sealed_link.id::text
WHERE sealed_link.form_id = %(form)s AND sealed_link.mark = %(mark)s;

-- name: list_batches
-- What was made together, newest first, with how many links and responses.
SELECT link_batch.id, link_batch.name, link_batch.made_at, person.name AS made_by,
    count(DISTINCT sealed_link.id) AS links, count(response.number) AS responses,
    count(DISTINCT sealed_link.id) FILTER (WHERE sealed_link.email <> '') AS addressed,
    (SELECT count(*) FROM link_mail JOIN sealed_link AS of_it ON of_it.id = link_mail.link_id
        WHERE of_it.batch_id = link_batch.id AND link_mail.state = 'sent') AS mailed,
    (SELECT count(*) FROM link_mail JOIN sealed_link AS of_it ON of_it.id = link_mail.link_id
        WHERE of_it.batch_id = link_batch.id AND link_mail.state = 'failed') AS failed
FROM link_batch
JOIN form ON form.id = link_batch.form_id
LEFT JOIN person ON person.id = link_batch.made_by
LEFT JOIN sealed_link ON sealed_link.batch_id = link_batch.id
LEFT JOIN response ON response.sealed_link = sealed_link.id AND response.stage = 'complete' AND NOT response.test
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
GROUP BY link_batch.id, person.name
ORDER BY link_batch.id DESC LIMIT 200;

-- name: list_links
-- Links of a form of the team in the order in which they were made: of a batch, from one on.
SELECT sealed_link.id, sealed_link.mark, sealed_link.given, sealed_link.until, sealed_link.uses,
    sealed_link.ended_at IS NOT NULL OR seal_key.ended_at IS NOT NULL AS ended, seal_key.secret, sealed_link.email,
    (SELECT count(*) FROM response WHERE response.sealed_link = sealed_link.id AND response.stage = 'complete'
        AND NOT response.test) AS responses,
    coalesce(link_mail.state, '') AS mail, coalesce(link_mail.result, '') AS mail_result, link_mail.at AS mailed_at
FROM sealed_link
JOIN form ON form.id = sealed_link.form_id
JOIN seal_key ON seal_key.form_id = sealed_link.form_id AND seal_key.number = sealed_link.key
LEFT JOIN link_mail ON link_mail.link_id = sealed_link.id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND sealed_link.batch_id = %(batch)s
    AND sealed_link.id > %(after)s
ORDER BY sealed_link.id LIMIT %(limit)s;

-- name: end_link
-- Ends one link; what was answered by it stays.
UPDATE sealed_link SET ended_at = now() FROM form
WHERE form.id = sealed_link.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND sealed_link.id = %(link)s AND sealed_link.ended_at IS NULL
RETURNING sealed_link.id;

-- name: to_mail
-- Notes which links of a batch are to be sent by mail, each once.
INSERT INTO link_mail (link_id)
SELECT sealed_link.id
FROM sealed_link JOIN form ON form.id = sealed_link.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND sealed_link.batch_id = %(batch)s
    AND sealed_link.email <> '' AND sealed_link.ended_at IS NULL
ON CONFLICT DO NOTHING
RETURNING link_id;

-- name: waiting_mails
-- Links of a batch that are to be sent by mail yet.
SELECT sealed_link.id, sealed_link.form_id, sealed_link.mark, sealed_link.given, sealed_link.until,
    sealed_link.uses, sealed_link.email, seal_key.secret, form.slug, team.slug AS team_slug, team.name AS team_name
FROM link_mail
JOIN sealed_link ON sealed_link.id = link_mail.link_id AND sealed_link.ended_at IS NULL
JOIN seal_key ON seal_key.form_id = sealed_link.form_id AND seal_key.number = sealed_link.key
JOIN form ON form.id = sealed_link.form_id AND form.deleted_at IS NULL
JOIN team ON team.id = form.team_id
WHERE sealed_link.batch_id = %(batch)s AND link_mail.state = 'waiting'
ORDER BY sealed_link.id LIMIT %(limit)s;

-- name: set_mail
-- Notes what became of a link's mail.
UPDATE link_mail SET state = %(state)s, result = %(result)s, at = now() WHERE link_id = %(link)s;
