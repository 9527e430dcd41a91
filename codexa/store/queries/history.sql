-- name: list_states
-- The saved states of a form of the team, newest first, with the edition that each was published as.
SELECT saved_state.revision, saved_state.saved_at, person.name AS saved_by, edition.number AS edition,
    saved_state.name, saved_state.changes
FROM saved_state
JOIN form ON form.id = saved_state.form_id
LEFT JOIN person ON person.id = saved_state.saved_by
LEFT JOIN edition ON edition.form_id = form.id AND edition.revision = saved_state.revision
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND saved_state.revision < %(before)s
ORDER BY saved_state.revision DESC
LIMIT %(limit)s;

-- name: find_state
-- One saved state of a form of the team.
SELECT saved_state.draft
FROM saved_state JOIN form ON form.id = saved_state.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND saved_state.revision = %(revision)s;

-- name: find_state_at
-- The newest saved state of a form of the team that is no newer than a revision: older ones are thinned out.
SELECT saved_state.draft
FROM saved_state JOIN form ON form.id = saved_state.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND saved_state.revision <= %(revision)s
ORDER BY saved_state.revision DESC
LIMIT 1;

-- name: name_state
-- Gives a saved state of a form of the team a name, or takes it away.
UPDATE saved_state SET name = %(name)s FROM form
WHERE form.id = saved_state.form_id AND form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND saved_state.revision = %(revision)s
RETURNING saved_state.revision;

-- name: thin_states
-- Deletes old states that one person saved soon again; never a form's first or newest, nor one that was published or named.
WITH followed AS (
    SELECT form_id, revision, saved_by, saved_at,
        lead(saved_by) OVER later AS next_by,
        lead(saved_at) OVER later AS next_at
    FROM saved_state WINDOW later AS (PARTITION BY form_id ORDER BY revision)
)
DELETE FROM saved_state USING followed
WHERE saved_state.form_id = followed.form_id AND saved_state.revision = followed.revision
    AND followed.revision > 1 AND saved_state.name = ''
    AND followed.saved_at < now() - make_interval(days => %(days)s)
    AND followed.next_by IS NOT DISTINCT FROM followed.saved_by
    AND followed.next_at - followed.saved_at < interval '5 minutes'
    AND NOT EXISTS (
        SELECT FROM edition WHERE edition.form_id = followed.form_id AND edition.revision = followed.revision
    );

-- name: note_presence
-- Says that a tab shows the form just now, and where in it.
INSERT INTO presence (form_id, tab, person_id, area, part)
SELECT id, %(tab)s, %(person)s, %(area)s, %(part)s FROM form
WHERE team_id = %(team)s AND id = %(form)s AND deleted_at IS NULL
ON CONFLICT (form_id, tab) DO UPDATE SET area = excluded.area, part = excluded.part, seen_at = now(),
    person_id = excluded.person_id
RETURNING form_id;

-- name: forget_presence
-- Forgets who left, of this form.
DELETE FROM presence WHERE form_id = %(form)s AND (tab = %(tab)s OR seen_at < now() - interval '1 minute');

-- name: list_present
-- Who else shows the form just now, each once: where they were last.
SELECT * FROM (
    SELECT DISTINCT ON (person.id) person.name, presence.area, presence.part
    FROM presence JOIN person ON person.id = presence.person_id
    WHERE presence.form_id = %(form)s AND presence.person_id <> %(person)s
        AND presence.seen_at > now() - make_interval(secs => %(seconds)s)
    ORDER BY person.id, presence.seen_at DESC
) AS present ORDER BY name;
