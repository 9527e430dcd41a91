-- name: add
-- Adds to what a subject has asked in the present window, or begins a new one.
INSERT INTO rate AS known (subject, count, ends_at)
VALUES (%(subject)s, %(count)s, clock_timestamp() + make_interval(secs => %(seconds)s))
ON CONFLICT (subject) DO UPDATE SET
    count = CASE WHEN known.ends_at <= clock_timestamp() THEN excluded.count ELSE known.count + excluded.count END,
    ends_at = CASE WHEN known.ends_at <= clock_timestamp() THEN excluded.ends_at ELSE known.ends_at END
RETURNING count, greatest(extract(epoch FROM ends_at - clock_timestamp()), 0)::float AS seconds;

-- name: delete_ended
-- Forgets counts that have ended.
DELETE FROM rate WHERE ends_at < now();
