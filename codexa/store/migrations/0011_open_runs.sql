-- What still needs something: follow-ups that wait for their turn, and those of the last thirty days that did not work
-- and that nobody had done again since.
CREATE VIEW open_run AS
SELECT run.id, run.form_id, run.number, run.follow_up, run.name, run.moment, run.again, run.kind, run.content, run.state,
    run.tries, run.result, run.created_at, run.ended_at, run.asked_by
FROM run JOIN response ON (response.form_id, response.number) = (run.form_id, run.number)
WHERE response.stage <> 'removed'
    AND (run.state = 'waiting'
        OR (run.state = 'failed' AND run.ended_at > now() - interval '30 days'
            AND NOT EXISTS (
                SELECT FROM run AS later
                WHERE (later.form_id, later.number, later.follow_up, later.moment)
                        = (run.form_id, run.number, run.follow_up, run.moment)
                    AND later.again > run.again
            )));
CREATE INDEX run_waiting ON run (form_id) WHERE state = 'waiting';
CREATE INDEX run_mailed ON run (form_id, ended_at) WHERE kind = 'email' AND state = 'done';
