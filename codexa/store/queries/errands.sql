-- name: insert_errand
-- Takes up a job that follows from no response.
INSERT INTO errand (team_id, kind, about) VALUES (%(team)s, %(kind)s, %(about)s) RETURNING id;

-- name: take_errand
-- An errand that is still to be done, with its try counted.
UPDATE errand SET tries = tries + 1 WHERE id = %(errand)s AND state = 'waiting' RETURNING id, team_id, kind, about, tries;

-- name: end_errand
-- Notes how an errand ended, or why it goes on waiting.
UPDATE errand SET state = %(state)s, result = %(result)s,
    ended_at = CASE WHEN %(state)s = 'waiting' THEN NULL ELSE now() END
WHERE id = %(errand)s AND state = 'waiting';

-- name: list_errands
-- The latest errands that the owners of a team may see: the team's, and those of the whole server.
SELECT id, kind, state, tries, result, created_at, ended_at FROM errand
WHERE team_id = %(team)s OR team_id IS NULL
ORDER BY id DESC
LIMIT %(most)s;

-- name: queue_state
-- How the queue stands: how many jobs wait that are due, since when the first does, how many are being carried out,
-- and how many workers gave a sign of life of late.
SELECT
    (SELECT count(*) FROM procrastinate_jobs
        WHERE status = 'todo' AND (scheduled_at IS NULL OR scheduled_at <= now())) AS waiting,
    (SELECT count(*) FROM procrastinate_jobs WHERE status = 'todo' AND scheduled_at > now()) AS later,
    (SELECT count(*) FROM procrastinate_jobs WHERE status = 'doing') AS running,
    (SELECT count(*) FROM procrastinate_workers WHERE last_heartbeat > now() - interval '1 minute') AS workers;

-- name: forget_ended
-- Forgets errands that ended so many days ago.
DELETE FROM errand WHERE ended_at < now() - make_interval(days => %(days)s);
