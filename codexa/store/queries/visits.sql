-- name: keep
-- Keeps how far a visit has come; what arrives late, after something newer, is left out.
INSERT INTO visit (id, form_id, day, edition, presentation, way, page, link, width, seen_at, told_at, turn, started, sent,
    place, field, steps, wrong, took)
VALUES (%(id)s, %(form)s, %(day)s, %(edition)s, %(presentation)s, %(way)s, %(page)s, %(link)s, %(width)s, %(at)s, %(at)s,
    %(turn)s, %(started)s, %(sent)s, %(place)s, %(field)s, %(steps)s, %(wrong)s, %(took)s)
ON CONFLICT (id) DO UPDATE SET told_at = excluded.told_at, turn = excluded.turn, started = excluded.started, sent = excluded.sent,
    place = excluded.place, field = excluded.field, steps = excluded.steps, wrong = excluded.wrong,
    took = excluded.took
WHERE visit.form_id = excluded.form_id AND visit.turn < excluded.turn;

-- name: count_over
-- Counts up to so many visits that began long enough ago, forgets them, and returns how many those were.
WITH over AS MATERIALIZED (
    SELECT id FROM visit WHERE seen_at < now() - make_interval(hours => %(hours)s)
    ORDER BY seen_at LIMIT %(most)s FOR UPDATE SKIP LOCKED
),
-- A page of a website is what a browser says: of a form so many are told apart, and all others are one.
known_page AS (
    SELECT form_id, page FROM (SELECT visit.form_id, page, row_number() OVER (
        PARTITION BY visit.form_id ORDER BY count(*) DESC, page) AS place
    FROM visit JOIN over USING (id) GROUP BY visit.form_id, page) AS pages WHERE place <= %(pages)s
),
sliced AS MATERIALIZED (
    SELECT id, form_id, day, edition, presentation, way, link, width, started, sent,
        CASE WHEN known_page.page IS NULL THEN %(others)s ELSE visit.page END AS page
    FROM visit JOIN over USING (id) LEFT JOIN known_page USING (form_id, page)
),
slice AS (
    INSERT INTO visit_slice AS known (form_id, day, edition, presentation, way, page, link, width, seen, started, sent)
    SELECT form_id, day, edition, presentation, way, page, link, width,
        count(*), count(*) FILTER (WHERE started), count(*) FILTER (WHERE sent)
    FROM sliced GROUP BY form_id, day, edition, presentation, way, page, link, width
    ON CONFLICT (form_id, day, edition, presentation, way, page, link, width) DO UPDATE SET
        seen = known.seen + excluded.seen, started = known.started + excluded.started, sent = known.sent + excluded.sent
    RETURNING id, form_id, day, edition, presentation, way, page, link, width
),
counted AS (
    INSERT INTO visit_count AS known (slice_id, what, part, bucket, number)
    SELECT slice.id, what, part, bucket, count(*)
    FROM visit_fact JOIN sliced USING (id)
    JOIN slice USING (form_id, day, edition, presentation, way, page, link, width)
    GROUP BY slice.id, what, part, bucket
    ON CONFLICT (slice_id, what, part, bucket) DO UPDATE SET number = known.number + excluded.number
),
gone AS (DELETE FROM visit USING over WHERE visit.id = over.id RETURNING visit.id)
SELECT count(*) AS count FROM gone;

-- name: count_by_month
-- Adds up to so many slices of days long ago to those of their month, which stand at its first day; returns how many.
WITH old AS MATERIALIZED (
    SELECT id, date_trunc('month', day)::date AS month FROM visit_slice
    WHERE day < %(before)s AND day <> date_trunc('month', day)::date
    ORDER BY id LIMIT %(most)s FOR UPDATE SKIP LOCKED
),
of_month AS MATERIALIZED (
    SELECT old.id AS old_id, form_id, month AS day, edition, presentation, way, page, link, width, seen, started, sent
    FROM visit_slice JOIN old USING (id)
),
slice AS (
    INSERT INTO visit_slice AS known (form_id, day, edition, presentation, way, page, link, width, seen, started, sent)
    SELECT form_id, day, edition, presentation, way, page, link, width, sum(seen), sum(started), sum(sent)
    FROM of_month GROUP BY form_id, day, edition, presentation, way, page, link, width
    ON CONFLICT (form_id, day, edition, presentation, way, page, link, width) DO UPDATE SET
        seen = known.seen + excluded.seen, started = known.started + excluded.started, sent = known.sent + excluded.sent
    RETURNING id, form_id, day, edition, presentation, way, page, link, width
),
counted AS (
    INSERT INTO visit_count AS known (slice_id, what, part, bucket, number)
    SELECT slice.id, what, part, bucket, sum(number)
    FROM visit_count JOIN of_month ON slice_id = old_id
    JOIN slice USING (form_id, day, edition, presentation, way, page, link, width)
    GROUP BY slice.id, what, part, bucket
    ON CONFLICT (slice_id, what, part, bucket) DO UPDATE SET number = known.number + excluded.number
),
gone AS (DELETE FROM visit_slice USING old WHERE visit_slice.id = old.id RETURNING visit_slice.id)
SELECT count(*) AS count FROM gone;

-- name: finished
-- How many of the team's forms' visitors came and how many sent, since a day.
SELECT form_id, sum(seen)::integer AS seen, sum(sent)::integer AS sent FROM (
    SELECT form_id, seen, sent FROM visit_slice WHERE day >= %(since)s
    UNION ALL SELECT form_id, 1, sent::integer FROM visit) AS told
JOIN form ON form.id = told.form_id AND form.team_id = %(team)s
GROUP BY form_id;
