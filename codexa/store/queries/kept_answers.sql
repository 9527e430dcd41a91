-- name: find
-- What a private link stands for, with where its form is and the edition with which it was kept.
SELECT kept_answers.form_id, kept_answers.number, response.edition, response.stage, kept_answers.entered,
    kept_answers.standing, kept_answers.visit, kept_answers.version, kept_answers.kept_at, kept_answers.until,
    form.slug, form.team_id, team.slug AS team_slug, team.name AS team_name
FROM kept_answers
JOIN response ON response.form_id = kept_answers.form_id AND response.number = kept_answers.number
JOIN form ON form.id = kept_answers.form_id
JOIN team ON team.id = form.team_id
WHERE (kept_answers.digest = %(digest)s OR kept_answers.member_digest = %(digest)s) AND form.deleted_at IS NULL
    AND response.stage <> 'removed';

-- name: insert
-- Keeps the answers of a response that was just numbered.
INSERT INTO kept_answers (form_id, number, digest, entered, standing, visit, until)
VALUES (%(form)s, %(number)s, %(digest)s, %(entered)s, %(standing)s, %(visit)s,
    now() + make_interval(days => %(days)s))
RETURNING version, until;

-- name: replace
-- Puts other answers in the place of those that were seen last, or of any; the same answers do no harm.
WITH kept AS (
    UPDATE kept_answers SET entered = %(entered)s, standing = %(standing)s, visit = %(visit)s, version = version + 1,
        kept_at = now(), until = now() + make_interval(days => %(days)s)
    FROM response
    WHERE response.form_id = kept_answers.form_id AND response.number = kept_answers.number
        AND response.stage = 'kept' AND kept_answers.form_id = %(form)s AND kept_answers.number = %(number)s
        AND (%(over)s OR kept_answers.version = %(version)s OR kept_answers.entered = %(entered)s)
    RETURNING kept_answers.form_id, kept_answers.number, kept_answers.version, kept_answers.until
), changed AS (
    UPDATE response SET edition = %(edition)s, answers = %(answers)s, told = %(told)s FROM kept
    WHERE response.form_id = kept.form_id AND response.number = kept.number
)
SELECT version, until FROM kept;

-- name: count_mail
-- Counts a mail with the link, where there were not too many.
UPDATE kept_answers SET mails = mails + 1 WHERE (digest = %(digest)s OR member_digest = %(digest)s) AND until > now() AND mails < %(most)s
RETURNING number;

-- name: count_kept
-- How many visitors may go on later.
SELECT count(*) FROM kept_answers JOIN response USING (form_id, number)
WHERE form_id = %(form)s AND stage = 'kept' AND until > now();

-- name: forget_over
-- Forgets what was kept until now; what was handed in stays.
WITH over AS (
    DELETE FROM kept_answers WHERE until <= now() RETURNING form_id, number
), gone AS (
    DELETE FROM response USING over
    WHERE response.form_id = over.form_id AND response.number = over.number AND response.stage = 'kept'
    RETURNING response.form_id
)
UPDATE response_counter SET gone = response_counter.gone + counted.count
FROM (SELECT form_id, count(*) FROM gone GROUP BY form_id) AS counted
WHERE response_counter.form_id = counted.form_id;
