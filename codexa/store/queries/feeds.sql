-- name: insert_feed
-- Makes a feed of a view of a form of the team.
INSERT INTO feed (form_id, view_id, digest, sealed, made_by)
SELECT form.id, response_view.id, %(digest)s, %(sealed)s, %(person)s
FROM form JOIN response_view ON response_view.form_id = form.id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL AND response_view.id = %(view)s
RETURNING id;

-- name: list_feeds
-- The feeds of a form of the team, newest first.
SELECT feed.id, feed.view_id, response_view.name AS view, feed.sealed, person.name AS made_by, feed.made_at,
    feed.last_fetched_at, feed.fetches
FROM feed JOIN form ON form.id = feed.form_id JOIN response_view ON response_view.id = feed.view_id
    LEFT JOIN person ON person.id = feed.made_by
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
ORDER BY feed.made_at DESC;

-- name: delete_feed
-- Ends a feed for ever.
DELETE FROM feed USING form
WHERE feed.id = %(feed)s AND form.id = feed.form_id AND form.team_id = %(team)s AND form.id = %(form)s
RETURNING feed.id;

-- name: find_feed
-- What a feed's secret gives: of which form and team, and the view as it is now.
SELECT feed.id, feed.form_id, form.team_id, form.slug, response_view.content,
    (SELECT count(*) FROM edition WHERE edition.form_id = form.id) AS editions
FROM feed JOIN form ON form.id = feed.form_id JOIN response_view ON response_view.id = feed.view_id
WHERE feed.digest = %(digest)s AND form.deleted_at IS NULL;

-- name: fetched
-- Notes that a feed was fetched.
UPDATE feed SET last_fetched_at = now(), fetches = fetches + 1 WHERE id = %(feed)s;
