-- name: lock_team
-- A team whose people nobody else changes until the transaction ends.
SELECT id FROM team WHERE id = %(team)s FOR UPDATE;

-- name: role_of
-- The role of a person in a team.
SELECT role FROM membership WHERE team_id = %(team)s AND person_id = %(person)s;

-- name: count_owners
-- How many owners a team has.
SELECT count(*) AS count FROM membership WHERE team_id = %(team)s AND role = 'owner';

-- name: set_role
-- Gives a person of a team another role.
UPDATE membership SET role = %(role)s WHERE team_id = %(team)s AND person_id = %(person)s RETURNING person_id;

-- name: take_out
-- Takes a person out of a team: their sessions there end, what was in their hands goes to whoever takes over, and so does
-- mail that forms write to them, what they were to decide, and what they had to do. What they did keeps their name.
WITH gone AS (
    DELETE FROM membership WHERE team_id = %(team)s AND person_id = %(person)s RETURNING person_id
), ended AS (
    DELETE FROM session USING gone WHERE session.person_id = gone.person_id AND session.team_id = %(team)s
), exceptions AS (
    DELETE FROM form_exception USING gone, form
    WHERE form_exception.person_id = gone.person_id AND form.id = form_exception.form_id AND form.team_id = %(team)s
), handed AS (
    UPDATE response SET person_id = %(successor)s FROM gone, form
    WHERE response.person_id = gone.person_id AND form.id = response.form_id AND form.team_id = %(team)s
), deciding AS (
    UPDATE approval_decider SET person_id = %(successor)s FROM gone, approval, form
    WHERE approval_decider.person_id = gone.person_id AND approval_decider.approved_at IS NULL
        AND %(successor)s::uuid IS NOT NULL AND approval.id = approval_decider.approval_id
        AND approval.state IN ('asked', 'asked back') AND form.id = approval.form_id AND form.team_id = %(team)s
), doing AS (
    UPDATE task SET person_id = %(successor)s FROM gone, form
    WHERE task.person_id = gone.person_id AND task.done_at IS NULL AND %(successor)s::uuid IS NOT NULL
        AND form.id = task.form_id AND form.team_id = %(team)s
), noted AS (
    INSERT INTO departure (team_id, person_id, successor_id) SELECT %(team)s, person_id, %(successor)s FROM gone
    ON CONFLICT (team_id, person_id) DO UPDATE SET successor_id = EXCLUDED.successor_id, left_at = now()
)
SELECT person_id FROM gone;

-- name: forms_writing_to
-- The forms of a team that write to a person, in their draft or as they are live, by name.
SELECT form.id, form.name FROM form
    LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL
    AND (position(%(person)s::text IN form.draft::text) > 0 OR position(%(person)s::text IN edition.definition::text) > 0)
ORDER BY lower(form.name), form.id;

-- name: count_in_hand
-- How many responses of a team are in a person's hands.
SELECT count(*) AS count FROM response JOIN form ON form.id = response.form_id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.person_id = %(person)s AND response.stage <> 'removed';

-- name: count_waiting
-- How many decisions and tasks of a team wait for a person alone.
SELECT (SELECT count(*) FROM approval JOIN form ON form.id = approval.form_id
        JOIN approval_decider AS decider ON decider.approval_id = approval.id AND decider.position = approval.at_step
    WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND approval.state IN ('asked', 'asked back')
        AND decider.person_id = %(person)s AND decider.approved_at IS NULL)
    + (SELECT count(*) FROM task JOIN form ON form.id = task.form_id
    WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND task.person_id = %(person)s AND task.done_at IS NULL)
    AS count;

-- name: list_invitations
-- Whom a team has invited and who has not come yet, the latest first.
SELECT invitation.id, invitation.email, invitation.role, invitation.invited_at, invitation.expires_at,
    person.name AS invited_by
FROM invitation LEFT JOIN person ON person.id = invitation.invited_by
WHERE invitation.team_id = %(team)s ORDER BY invitation.invited_at DESC, invitation.id;

-- name: invite
-- Invites somebody into a team, or once more: an earlier link works no more.
INSERT INTO invitation (team_id, email, email_folded, role, invited_by, expires_at)
VALUES (%(team)s, %(email)s, %(folded)s, %(role)s, %(person)s, now() + make_interval(days => %(days)s))
ON CONFLICT (team_id, email_folded) DO UPDATE SET email = EXCLUDED.email, role = EXCLUDED.role, token_digest = '',
    invited_by = EXCLUDED.invited_by, invited_at = now(), expires_at = EXCLUDED.expires_at
RETURNING id;

-- name: is_of_team
-- Whether somebody with that e-mail is in a team.
SELECT EXISTS (SELECT FROM membership JOIN person ON person.id = membership.person_id
    WHERE membership.team_id = %(team)s AND person.email_folded = %(folded)s) AS is_there;

-- name: take_invitation_back
-- Takes an invitation back.
DELETE FROM invitation WHERE team_id = %(team)s AND id = %(invitation)s RETURNING email;

-- name: set_token
-- Notes by what an invitation is accepted, as its mail is sent; nothing where it was taken back.
UPDATE invitation SET token_digest = %(digest)s FROM team
WHERE invitation.id = %(invitation)s AND invitation.expires_at > now() AND team.id = invitation.team_id
RETURNING invitation.email, invitation.role, team.name AS team_name,
    (SELECT name FROM person WHERE person.id = invitation.invited_by) AS invited_by,
    (SELECT language FROM person WHERE person.id = invitation.invited_by) AS language;

-- name: find_invitation
-- The invitation of a link that still works.
SELECT invitation.id, invitation.team_id, team.name AS team_name, invitation.email, invitation.email_folded,
    invitation.role, (SELECT name FROM person WHERE person.id = invitation.invited_by) AS invited_by,
    (SELECT person.id FROM person WHERE person.email_folded = invitation.email_folded) AS person_id
FROM invitation JOIN team ON team.id = invitation.team_id
WHERE invitation.token_digest = %(digest)s AND invitation.expires_at > now();

-- name: use_invitation
-- Uses an invitation up; no row where somebody has just done so.
DELETE FROM invitation WHERE id = %(invitation)s AND token_digest = %(digest)s RETURNING role;

-- name: join_team
-- Puts a person into a team; who is there keeps their role.
WITH back AS (DELETE FROM departure WHERE team_id = %(team)s AND person_id = %(person)s)
INSERT INTO membership (team_id, person_id, role) VALUES (%(team)s, %(person)s, %(role)s) ON CONFLICT DO NOTHING;

-- name: insert_alone
-- Makes a person who is in no team yet; no row where somebody has the e-mail.
INSERT INTO person (email, email_folded, name, password_hash)
VALUES (%(email)s, %(folded)s, %(name)s, %(password_hash)s) ON CONFLICT DO NOTHING RETURNING id;

-- name: teams_of
-- The teams of a person, by name.
SELECT team.id, team.name, membership.role, team.personal_of IS NOT NULL AS personal FROM membership JOIN team ON team.id = membership.team_id
WHERE membership.person_id = %(person)s ORDER BY lower(team.name), team.id;

-- name: forget_invitations
-- Forgets invitations whose time was over a month ago.
DELETE FROM invitation WHERE expires_at < now() - interval '30 days';

-- name: list_exceptions
-- The exceptions of a team's forms, by form and person.
SELECT form_exception.form_id, form.name AS form_name, form_exception.person_id, person.name AS person_name,
    form_exception.role
FROM form_exception JOIN form ON form.id = form_exception.form_id JOIN person ON person.id = form_exception.person_id
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL ORDER BY lower(form.name), form.id, lower(person.name), person.id;

-- name: set_exception
-- Gives a person of a team another role for one form of it; nothing where either is not there, or they are an owner.
INSERT INTO form_exception (form_id, person_id, role)
SELECT form.id, membership.person_id, %(role)s FROM form JOIN membership ON membership.team_id = form.team_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND membership.person_id = %(person)s AND membership.role <> 'owner'
ON CONFLICT (form_id, person_id) DO UPDATE SET role = EXCLUDED.role
RETURNING form_id;

-- name: delete_exception
-- Takes an exception away.
DELETE FROM form_exception USING form
WHERE form.id = form_exception.form_id AND form.team_id = %(team)s
    AND form_exception.form_id = %(form)s AND form_exception.person_id = %(person)s
RETURNING form_exception.form_id;
