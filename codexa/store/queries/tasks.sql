-- name: insert_task
-- Keeps something to do, once for each run that asks for it.
INSERT INTO task (form_id, number, run, words, person_id, group_code, address, due_on)
SELECT %(form)s, %(number)s, %(run)s, %(words)s,
    (SELECT id FROM person WHERE id = %(person)s), %(group)s, %(address)s, current_date + %(days)s::integer
ON CONFLICT (form_id, number, run) DO NOTHING;

-- name: open_of
-- What is to be done in a team by a person, alone or as one of a group; for an owner also what nobody is there for.
-- What is due first stands first.
SELECT task.id, task.form_id, form.name AS form_name, task.number, task.words, task.due_on, task.made_at,
    task.due_on < current_date AS late
FROM task JOIN form ON form.id = task.form_id
    JOIN response ON (response.form_id, response.number) = (task.form_id, task.number)
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.stage <> 'removed' AND task.done_at IS NULL
    AND (task.person_id = %(person)s
        OR lower(task.address) = (SELECT email_folded FROM person WHERE id = %(person)s)
        OR EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = form.team_id
            AND person_in_group.code = task.group_code AND person_in_group.person_id = %(person)s)
        OR (%(owner)s AND NOT EXISTS (
            SELECT FROM membership JOIN person ON person.id = membership.person_id
            WHERE membership.team_id = form.team_id AND (task.person_id = person.id
                OR lower(task.address) = person.email_folded
                OR EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = form.team_id
                    AND person_in_group.code = task.group_code AND person_in_group.person_id = person.id)))))
ORDER BY task.due_on NULLS LAST, task.id LIMIT %(most)s;

-- name: done
-- Somebody has done it; no row where it was done before, or is none of the team's.
UPDATE task SET done_at = now(), done_by = %(person)s, remark = %(remark)s
FROM form
WHERE task.id = %(task)s AND form.id = task.form_id AND form.team_id = %(team)s AND form.deleted_at IS NULL
    AND task.done_at IS NULL
RETURNING task.form_id, task.number, task.words;
