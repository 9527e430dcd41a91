-- name: list_forms
-- The desk: every form of the team with what came in lately, latest change first.
SELECT form.id, form.name, form.slug, form.revision, form.live_edition, form.changed_at, person.name AS changed_by,
    coalesce(form.draft_digest <> edition.digest, false) AS changed,
    response_counter.last_number - response_counter.gone
        - (SELECT count(*)::integer FROM response WHERE response.form_id = form.id AND response.stage <> 'complete') AS responses,
    coalesce(lately.days, '{}') AS days, form.unreadable, failed.count AS failed,
    deciding.count AS deciding, form.access, form.tables_changed,
    form.labels, form.sites, form.owner_id, owner.name AS owner,
    -- A whole document is read only where it is needed.
    CASE WHEN form.access ->> 'closes' <> '' THEN coalesce(edition.definition, form.draft) ->> 'time_zone' END AS zone
FROM form
JOIN response_counter ON response_counter.form_id = form.id
LEFT JOIN person ON person.id = form.changed_by
LEFT JOIN person AS owner ON owner.id = form.owner_id
LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
LEFT JOIN LATERAL (
    SELECT array_agg(coalesce(received.count, 0) ORDER BY day) AS days
    FROM generate_series(current_date - 13, current_date, interval '1 day') AS day
    LEFT JOIN (
        SELECT received_at::date AS on_day, count(*)::integer AS count
        FROM response
        WHERE response.form_id = form.id AND response.stage = 'complete' AND NOT response.test AND received_at >= current_date - 13
        GROUP BY 1
    ) AS received ON received.on_day = day::date
) AS lately ON true
CROSS JOIN LATERAL (
    SELECT count(*)::integer AS count
    FROM open_run
    WHERE open_run.form_id = form.id AND open_run.state = 'failed'
) AS failed
CROSS JOIN LATERAL (
    SELECT count(DISTINCT approval.number)::integer AS count
    FROM approval JOIN response ON response.form_id = approval.form_id AND response.number = approval.number
    WHERE approval.form_id = form.id AND approval.state IN ('asked', 'asked back') AND response.stage <> 'removed'
) AS deciding
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL
    AND NOT is_hidden(form.id, form.team_id, %(person)s)
ORDER BY form.changed_at DESC, form.id;

-- name: insert_form
-- Makes a form with its first draft.
WITH made AS (
    INSERT INTO form (team_id, name, slug, draft, sites, changed_by, owner_id)
    VALUES (%(team)s, %(name)s, %(slug)s, %(draft)s, %(sites)s, %(person)s, %(person)s)
    RETURNING id, revision, draft, changed_by
), kept AS (
    INSERT INTO saved_state (form_id, revision, draft, saved_by) SELECT id, revision, draft, changed_by FROM made
), counted AS (
    INSERT INTO response_counter (form_id) SELECT id FROM made
)
SELECT id FROM made;

-- name: find_form
-- One form of the team with its draft.
SELECT form.id, form.name, form.slug, form.sites, form.draft, form.revision, form.live_edition, form.changed_at,
    person.name AS changed_by, edition.revision AS live_revision,
    response_counter.last_number - response_counter.gone
        - (SELECT count(*)::integer FROM response WHERE response.form_id = form.id AND response.stage <> 'complete') AS responses,
    (SELECT coalesce(max(number), 0) FROM edition WHERE form_id = form.id) AS newest_edition
FROM form
JOIN response_counter ON response_counter.form_id = form.id
LEFT JOIN person ON person.id = form.changed_by
LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL;

-- name: find_in_force
-- What visitors get of a form of the team, or its draft where it was never published.
SELECT coalesce(edition.definition, form.draft) AS document
FROM form LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL;

-- name: find_revision
-- The revision of a form of the team, without its draft.
SELECT revision FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL;

-- name: find_saved
-- What is saved and live of a form of the team, without its draft.
SELECT revision, live_edition FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL;

-- name: wait_for_slugs
-- Lets one at a time give an address to forms of a team.
SELECT pg_advisory_xact_lock(hashtextextended('addresses of ' || %(team)s::text, 0));

-- name: all_ids
-- Every form of every team.
SELECT id FROM form ORDER BY id;

-- name: documents
-- A form's draft, and what is live of it.
SELECT draft AS document FROM form WHERE id = %(form)s
UNION ALL SELECT edition.definition FROM edition JOIN form ON form.id = edition.form_id AND form.live_edition = edition.number
WHERE form.id = %(form)s;

-- name: set_unreadable
-- Notes why a form can't be read by this version, or that it can.
UPDATE form SET unreadable = %(problem)s WHERE id = %(form)s AND unreadable IS DISTINCT FROM %(problem)s;

-- name: slugs_like
-- The addresses that other forms have or had and that begin so, of deleted ones too: an address is never given twice.
SELECT slug FROM (
    SELECT slug, id FROM form WHERE team_id = %(team)s
    UNION ALL SELECT slug, form_id FROM former_slug WHERE team_id = %(team)s
) AS given
WHERE id IS DISTINCT FROM %(form)s AND (slug = %(slug)s OR slug LIKE %(slug)s || '-%%');

-- name: save_draft
-- Keeps a new draft where the one it was made from is still the latest; gives no row otherwise.
WITH saved AS (
    UPDATE form SET draft = %(draft)s, name = %(name)s, revision = revision + 1, changed_at = now(), changed_by = %(person)s,
        unreadable = NULL
    WHERE team_id = %(team)s AND id = %(form)s AND revision = %(revision)s AND deleted_at IS NULL
    RETURNING id, revision, draft, changed_at, changed_by
), kept AS (
    INSERT INTO saved_state (form_id, revision, draft, saved_at, saved_by, changes)
    SELECT id, revision, draft, changed_at, changed_by, %(changes)s FROM saved
)
SELECT revision, changed_at FROM saved;

-- name: slug_that_follows
-- The address of a form that goes by its name: nobody has chosen it, and others can't have it yet.
SELECT slug FROM form
WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL AND live_edition IS NULL AND NOT slug_chosen;

-- name: set_slug
-- Gives a form its address. Once it was published others may have the present one, which leads on from then.
WITH present AS (
    SELECT id, team_id, slug, live_edition FROM form WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL
), taken_back AS (
    DELETE FROM former_slug WHERE team_id = %(team)s AND form_id = %(form)s AND slug = %(slug)s
), kept AS (
    INSERT INTO former_slug (team_id, slug, form_id)
    SELECT team_id, slug, id FROM present WHERE live_edition IS NOT NULL AND slug <> %(slug)s
    ON CONFLICT DO NOTHING
)
UPDATE form SET slug = %(slug)s, slug_chosen = %(chosen)s FROM present WHERE form.id = present.id RETURNING form.id;

-- name: set_sites
-- Sets the websites that may frame the form.
UPDATE form SET sites = %(sites)s WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL RETURNING id;

-- name: set_deleted
-- Deletes a form, or brings it back; its responses stay either way.
UPDATE form SET deleted_at = CASE WHEN %(deleted)s THEN now() END
WHERE team_id = %(team)s AND id = %(form)s AND (deleted_at IS NULL) = %(deleted)s
RETURNING id;

-- name: list_for_programs
-- The forms of a team, or one of them, as programs are told of them, latest change first.
SELECT form.id, form.name, '/f/' || team.slug || '/' || form.slug AS address, form.live_edition AS edition,
    form.changed_at, response_counter.last_number - response_counter.gone
        - (SELECT count(*)::integer FROM response
            WHERE response.form_id = form.id AND response.stage <> 'complete') AS responses
FROM form JOIN team ON team.id = form.team_id JOIN response_counter ON response_counter.form_id = form.id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND (%(form)s::uuid IS NULL OR form.id = %(form)s)
ORDER BY form.changed_at DESC;

-- name: team_of
-- The team of a form.
SELECT team_id FROM form WHERE id = %(form)s AND deleted_at IS NULL;

-- name: calendar_of
-- Which address of a form's calendar holds; none where it is closed.
SELECT calendar_turn FROM form WHERE id = %(form)s AND deleted_at IS NULL AND calendar_open;

-- name: open_calendar
-- Gives a form's calendar another address, or none: the one before leads nowhere.
UPDATE form SET calendar_turn = calendar_turn + 1, calendar_open = %(open)s
WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL RETURNING calendar_turn;
