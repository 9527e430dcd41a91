-- name: insert_approval
-- Asks for an approval, once for each event that does; no row the second time.
INSERT INTO approval (form_id, number, follow_up, moment, name, subject)
VALUES (%(form)s, %(number)s, %(follow_up)s, %(moment)s, %(name)s, %(subject)s)
ON CONFLICT (form_id, number, follow_up, moment) DO NOTHING RETURNING id;

-- name: insert_step
-- One of its steps.
INSERT INTO approval_step (approval_id, position, name, every, hours, remind)
VALUES (%(approval)s, %(position)s, %(name)s, %(every)s, %(hours)s, %(remind)s);

-- name: insert_decider
-- Somebody who decides in a step; for who has left the team whoever has taken over.
INSERT INTO approval_decider (approval_id, position, person_id, group_code, address, stands_in)
SELECT %(approval)s, %(position)s, coalesce((
        SELECT departure.successor_id FROM departure JOIN form ON form.team_id = departure.team_id
            JOIN approval ON approval.form_id = form.id
        WHERE approval.id = %(approval)s AND departure.person_id = %(person)s
    ), (SELECT id FROM person WHERE id = %(person)s)), %(group)s, %(address)s, %(stands_in)s
WHERE %(person)s::uuid IS NULL OR EXISTS (SELECT FROM person WHERE id = %(person)s);

-- name: begin_step
-- The turn of a step begins now.
UPDATE approval_step SET due_at = now() + make_interval(hours => hours)
WHERE approval_id = %(approval)s AND position = %(position)s
RETURNING due_at, remind;

-- name: who_may
-- Who may decide about an approval now, by name: those of its step; after its time also who stands in; where nobody of
-- them is in the team any more, its owners.
WITH open AS (
    SELECT approval.id, approval.at_step, form.team_id, step.due_at < now() AS over
    FROM approval JOIN form ON form.id = approval.form_id
        JOIN approval_step AS step ON step.approval_id = approval.id AND step.position = approval.at_step
    WHERE approval.id = %(approval)s AND form.deleted_at IS NULL
), deciding AS (
    SELECT DISTINCT person.id, person.name, person.email, decider.id AS decider, decider.stands_in
    FROM open JOIN approval_decider AS decider ON decider.approval_id = open.id AND decider.position = open.at_step
        JOIN membership ON membership.team_id = open.team_id
        JOIN person ON person.id = membership.person_id
    WHERE (NOT decider.stands_in OR open.over)
        AND (decider.person_id = person.id OR person.email_folded = lower(decider.address)
            OR EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = open.team_id
                AND person_in_group.code = decider.group_code AND person_in_group.person_id = person.id))
)
SELECT id, name, email, decider, stands_in FROM deciding
UNION ALL
SELECT person.id, person.name, person.email, NULL, FALSE
FROM open JOIN membership ON membership.team_id = open.team_id AND membership.role = 'owner'
    JOIN person ON person.id = membership.person_id
WHERE NOT EXISTS (SELECT FROM deciding)
UNION ALL
SELECT person.id, person.name, person.email, NULL, FALSE
FROM open JOIN team ON team.id = open.team_id JOIN person ON person.id = team.rehearsed_by
ORDER BY name, id;

-- name: lock_approval
-- An approval with its form and response, kept from others until the transaction ends.
SELECT approval.id, approval.form_id, approval.number, approval.name, approval.subject, approval.state, approval.at_step,
    approval.asked_at, form.team_id, step.every, step.name AS step_name, step.due_at,
    (SELECT count(*) FROM approval_step WHERE approval_step.approval_id = approval.id) AS steps
FROM approval JOIN form ON form.id = approval.form_id
    JOIN approval_step AS step ON step.approval_id = approval.id AND step.position = approval.at_step
    JOIN response ON (response.form_id, response.number) = (approval.form_id, approval.number)
WHERE approval.id = %(approval)s AND form.deleted_at IS NULL AND response.stage <> 'removed'
FOR UPDATE OF approval;

-- name: find_approval
-- The same, as it stands.
SELECT approval.id, approval.form_id, approval.number, approval.name, approval.subject, approval.state, approval.at_step,
    approval.asked_at, form.team_id, step.every, step.name AS step_name, step.due_at,
    (SELECT count(*) FROM approval_step WHERE approval_step.approval_id = approval.id) AS steps
FROM approval JOIN form ON form.id = approval.form_id
    JOIN approval_step AS step ON step.approval_id = approval.id AND step.position = approval.at_step
    JOIN response ON (response.form_id, response.number) = (approval.form_id, approval.number)
WHERE approval.id = %(approval)s AND form.deleted_at IS NULL AND response.stage <> 'removed';

-- name: approve_for
-- A person approves for all whom they decide for in a step.
UPDATE approval_decider SET approved_at = now(), approved_by = %(person)s
WHERE id = ANY(%(deciders)s) AND approved_at IS NULL;

-- name: still_to_approve
-- How many of a step's deciders have not approved yet; who stands in is not counted.
SELECT count(*) FROM approval_decider
WHERE approval_id = %(approval)s AND position = %(position)s AND NOT stands_in AND approved_at IS NULL;

-- name: set_state
-- How an approval stands, and at which step.
UPDATE approval SET state = %(state)s, at_step = %(step)s,
    ended_at = CASE WHEN %(state)s IN ('approved', 'denied', 'withdrawn') THEN now() END
WHERE id = %(approval)s;

-- name: states_of
-- How all approvals of a response stand.
SELECT state FROM approval WHERE form_id = %(form)s AND number = %(number)s;

-- name: open_of_response
-- The approvals of a response that are still open.
SELECT id, state, at_step FROM approval
WHERE form_id = %(form)s AND number = %(number)s AND state IN ('asked', 'asked back') ORDER BY asked_at, id;

-- name: set_decision
-- What was decided of a response.
UPDATE response SET decision = %(decision)s WHERE form_id = %(form)s AND number = %(number)s;

-- name: waiting_for
-- What waits for a person of a team: those whose time is over first, then those that were asked first.
SELECT approval.id, approval.form_id, form.name AS form_name, approval.number, approval.name, approval.subject,
    approval.asked_at, step.name AS step_name, step.due_at
FROM approval JOIN form ON form.id = approval.form_id
    JOIN approval_step AS step ON step.approval_id = approval.id AND step.position = approval.at_step
    JOIN response ON (response.form_id, response.number) = (approval.form_id, approval.number)
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.stage <> 'removed' AND approval.state = 'asked'
    AND EXISTS (
        SELECT FROM approval_decider AS decider
        WHERE decider.approval_id = approval.id AND decider.position = approval.at_step AND decider.approved_at IS NULL
            AND (NOT decider.stands_in OR step.due_at < now())
            AND (decider.person_id = %(person)s
                OR lower(decider.address) = (SELECT email_folded FROM person WHERE id = %(person)s)
                OR EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = form.team_id
                    AND person_in_group.code = decider.group_code AND person_in_group.person_id = %(person)s))
    )
ORDER BY step.due_at NULLS LAST, approval.asked_at, approval.number, approval.id LIMIT %(most)s;

-- name: nobody_left
-- What waits, and nobody who was asked is in the team any more: it is for its owners.
SELECT approval.id, approval.form_id, form.name AS form_name, approval.number, approval.name, approval.subject,
    approval.asked_at, step.name AS step_name, step.due_at
FROM approval JOIN form ON form.id = approval.form_id
    JOIN approval_step AS step ON step.approval_id = approval.id AND step.position = approval.at_step
    JOIN response ON (response.form_id, response.number) = (approval.form_id, approval.number)
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.stage <> 'removed' AND approval.state = 'asked'
    AND NOT EXISTS (
        SELECT FROM approval_decider AS decider JOIN membership ON membership.team_id = form.team_id
            JOIN person ON person.id = membership.person_id
        WHERE decider.approval_id = approval.id AND decider.position = approval.at_step
            AND (NOT decider.stands_in OR step.due_at < now())
            AND (decider.person_id = person.id OR person.email_folded = lower(decider.address)
                OR EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = form.team_id
                    AND person_in_group.code = decider.group_code AND person_in_group.person_id = person.id))
    )
ORDER BY step.due_at NULLS LAST, approval.asked_at, approval.number, approval.id LIMIT %(most)s;

-- name: decided_by
-- What a person has decided, the latest first.
SELECT event.form_id, form.name AS form_name, event.number, event.kind, event.at, event.data
FROM event JOIN form ON form.id = event.form_id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND event.person_id = %(person)s
    AND event.kind IN ('approved', 'denied', 'step approved', 'asked back')
ORDER BY event.at DESC, event.id DESC LIMIT %(most)s;

-- name: said_of
-- What was said about a response, in order.
SELECT event.kind, event.at, person.name AS person, event.data
FROM event LEFT JOIN person ON person.id = event.person_id
WHERE event.form_id = %(form)s AND event.number = %(number)s
    AND event.kind IN ('decision asked', 'approved', 'denied', 'step approved', 'asked back', 'sent again', 'remark')
ORDER BY event.id;

-- name: last_said
-- What was said last about a response, by whom.
SELECT event.kind, person.name AS person, event.data ->> 'remark' AS remark
FROM event LEFT JOIN person ON person.id = event.person_id
WHERE event.form_id = %(form)s AND event.number = %(number)s AND event.kind IN ('approved', 'denied', 'asked back')
ORDER BY event.id DESC LIMIT 1;

-- name: has_part
-- Whether a person is asked in any step of an approval.
SELECT EXISTS (
    SELECT FROM approval_decider AS decider
        JOIN approval ON approval.id = decider.approval_id JOIN form ON form.id = approval.form_id
        JOIN person ON person.id = %(person)s
    WHERE decider.approval_id = %(approval)s
        AND (decider.person_id = person.id OR decider.approved_by = person.id OR person.email_folded = lower(decider.address)
            OR EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = form.team_id
                AND person_in_group.code = decider.group_code AND person_in_group.person_id = person.id))
) AS has_part;
