-- name: members_table
-- The table of a team's members, by team.
SELECT data_table.id, data_table.revision, data_table.definition, data_table.name, data_table.seen_by, data_table.changed_by,
    data_table.seen_groups, data_table.changed_groups
FROM team JOIN data_table ON data_table.id = team.members_table
WHERE team.id = %(team)s AND data_table.deleted_at IS NULL;

-- name: team_of_form
-- The team that a form belongs to.
SELECT team_id FROM form WHERE id = %(form)s;

-- name: is_members
-- Whether a table is that of a team's members.
SELECT EXISTS (SELECT FROM team WHERE members_table = %(table)s) AS is_members;

-- name: set_members_table
-- Makes a table that of a team's members, where it has none.
UPDATE team SET members_table = %(table)s WHERE id = %(team)s AND (members_table IS NULL OR NOT EXISTS (
    SELECT FROM data_table WHERE data_table.id = team.members_table AND data_table.deleted_at IS NULL))
RETURNING id;

-- name: find_team
-- A team by the last part of its members' address.
SELECT id, name, slug FROM team WHERE slug = %(slug)s;

-- name: find_by_email
-- The member of a team with an e-mail, as it is compared.
SELECT member.id, record.number, record.table_id, record.kept ->> 'email' AS email, record.kept ->> 'name' AS name,
    member.password_hash, member.confirmed_at
FROM team
JOIN record_once ON record_once.table_id = team.members_table AND record_once.column_id = 'email'
    AND record_once.value = %(email)s
JOIN record ON record.table_id = record_once.table_id AND record.number = record_once.number
LEFT JOIN member ON member.table_id = record.table_id AND member.number = record.number
WHERE team.id = %(team)s AND record.removed_at IS NULL;

-- name: as_member
-- The account of a member's record, made where there is none.
INSERT INTO member (table_id, number) VALUES (%(table)s, %(number)s)
ON CONFLICT (table_id, number) DO UPDATE SET number = EXCLUDED.number RETURNING id;

-- name: find_member
-- A member by id, where they are one of the team.
SELECT member.id, record.number, record.table_id, record.kept ->> 'email' AS email, record.kept ->> 'name' AS name,
    member.password_hash, member.confirmed_at
FROM member
JOIN record ON record.table_id = member.table_id AND record.number = member.number AND record.removed_at IS NULL
JOIN team ON team.members_table = member.table_id
WHERE member.id = %(member)s AND team.id = %(team)s;

-- name: find_visiting
-- Who fills in a form by a session of a member: a member of the form's team, with the groups that there are.
SELECT member.id AS member_id, record.kept ->> 'email' AS email, record.kept ->> 'name' AS name,
    ARRAY(SELECT team_group.code FROM team_group WHERE team_group.team_id = team.id
        AND record.kept -> 'groups' ? team_group.code) AS groups
FROM member_session
JOIN member ON member.id = member_session.member_id
JOIN record ON record.table_id = member.table_id AND record.number = member.number AND record.removed_at IS NULL
JOIN team ON team.members_table = member.table_id
JOIN form ON form.team_id = team.id
WHERE member_session.id = %(session)s AND form.id = %(form)s
    AND member_session.expires_at > now() AND member_session.seen_at > now() - %(idle)s;

-- name: find_as
-- A member of a team as forms know them, by the number of their record.
SELECT record.kept ->> 'email' AS email, record.kept ->> 'name' AS name,
    ARRAY(SELECT team_group.code FROM team_group WHERE team_group.team_id = team.id
        AND record.kept -> 'groups' ? team_group.code) AS groups
FROM team JOIN record ON record.table_id = team.members_table AND record.removed_at IS NULL
WHERE team.id = %(team)s AND record.number = %(number)s;

-- name: find_person_visiting
-- The same by a session of somebody of the form's team; their own rehearsal is filled in as whom they chose.
SELECT person.id AS person_id, NULL::uuid AS member_id, person.email, person.name,
    ARRAY(SELECT code FROM person_in_group
        WHERE person_in_group.team_id = membership.team_id AND person_in_group.person_id = person.id) AS groups
FROM session
JOIN person ON person.id = session.person_id
JOIN form ON form.id = %(form)s
JOIN membership ON membership.person_id = person.id AND membership.team_id = home_team(form.id)
LEFT JOIN team AS rehearsal ON rehearsal.id = form.team_id AND rehearsal.rehearsed_by = person.id
WHERE session.id = %(session)s AND session.expires_at > now() AND session.seen_at > now() - %(idle)s
    AND rehearsal.rehearsed_as IS NULL
UNION ALL
SELECT NULL, member.id, record.kept ->> 'email', record.kept ->> 'name',
    ARRAY(SELECT team_group.code FROM team_group WHERE team_group.team_id = home.id
        AND record.kept -> 'groups' ? team_group.code)
FROM session
JOIN form ON form.id = %(form)s
JOIN team AS rehearsal ON rehearsal.id = form.team_id AND rehearsal.rehearsed_by = session.person_id
JOIN team AS home ON home.id = home_team(form.id)
JOIN member ON member.table_id = home.members_table AND member.number = rehearsal.rehearsed_as
JOIN record ON record.table_id = member.table_id AND record.number = member.number AND record.removed_at IS NULL
WHERE session.id = %(session)s AND session.expires_at > now() AND session.seen_at > now() - %(idle)s;

-- name: session_of_person
-- The id of a session of the workbench, by its cookie.
SELECT id FROM session WHERE token_digest = %(digest)s AND expires_at > now();

-- name: insert_session
-- Signs a member in, and notes that they could.
WITH confirmed AS (
    UPDATE member SET confirmed_at = coalesce(confirmed_at, CASE WHEN %(confirmed)s THEN now() END)
    WHERE id = %(member)s
), over AS (
    DELETE FROM member_session WHERE expires_at < now()
)
INSERT INTO member_session (token_digest, member_id, csrf_token, expires_at)
VALUES (%(digest)s, %(member)s, %(csrf_token)s, now() + %(lifetime)s) RETURNING id;

-- name: find_session
-- The member that is signed in at a team by a cookie.
WITH touched AS (
    UPDATE member_session SET seen_at = now()
    WHERE token_digest = %(digest)s AND expires_at > now()
        AND seen_at BETWEEN now() - %(idle)s AND now() - interval '1 minute'
)
SELECT member_session.id AS session_id, member_session.csrf_token, member.id, record.number, record.table_id,
    record.kept ->> 'email' AS email, record.kept ->> 'name' AS name, team.id AS team_id, team.name AS team_name,
    team.slug AS team_slug, member.password_hash <> '' AS has_password
FROM member_session
JOIN member ON member.id = member_session.member_id
JOIN record ON record.table_id = member.table_id AND record.number = member.number AND record.removed_at IS NULL
JOIN team ON team.members_table = member.table_id
WHERE member_session.token_digest = %(digest)s AND team.slug = %(team)s
    AND member_session.expires_at > now() AND member_session.seen_at > now() - %(idle)s;

-- name: end_session
-- Signs a member out.
DELETE FROM member_session WHERE token_digest = %(digest)s;

-- name: end_others
-- Ends a member's other sessions.
DELETE FROM member_session WHERE member_id = %(member)s AND token_digest <> %(staying)s;

-- name: set_password
-- Gives a member another password.
UPDATE member SET password_hash = %(password_hash)s WHERE id = %(member)s;

-- name: note_confirmed
-- Notes that a member's address was shown to be theirs.
UPDATE member SET confirmed_at = now() WHERE id = %(member)s AND confirmed_at IS NULL;

-- name: insert_link
-- Makes a link for a member; who waits for its code knows `asked`.
WITH over AS (
    DELETE FROM member_link WHERE expires_at < now() - interval '1 day'
)
INSERT INTO member_link (token_digest, kind, member_id, email, back, asked_digest, code_mark, expires_at)
VALUES (%(digest)s, %(kind)s, %(member)s, %(email)s, %(back)s, %(asked)s, %(code)s, now() + %(lifetime)s)
ON CONFLICT (asked_digest) DO UPDATE SET token_digest = EXCLUDED.token_digest, code_mark = EXCLUDED.code_mark;

-- name: find_link
-- What a link of a team's member stands for while it works.
SELECT member_link.kind, member_link.member_id, member_link.email, member_link.back FROM member_link
JOIN member ON member.id = member_link.member_id
JOIN team ON team.members_table = member.table_id
WHERE member_link.token_digest = %(digest)s AND team.id = %(team)s AND member_link.expires_at > now();

-- name: use_link
-- Uses a link up, once.
DELETE FROM member_link USING member, team
WHERE member_link.token_digest = %(digest)s AND member.id = member_link.member_id
    AND team.members_table = member.table_id AND team.id = %(team)s AND member_link.expires_at > now()
RETURNING member_link.kind, member_link.member_id, member_link.email, member_link.back;

-- name: count_code
-- Counts a try of a code, before it is looked at; nothing after too many.
UPDATE member_link SET tries = tries + 1
WHERE asked_digest = %(asked)s AND tries < %(most)s AND expires_at > now() AND kind = 'sign in' RETURNING code_mark;

-- name: use_code
-- Uses the link up whose code was right, once.
DELETE FROM member_link USING member, team
WHERE asked_digest = %(asked)s AND code_mark = %(code)s AND member.id = member_link.member_id
    AND team.members_table = member.table_id AND team.id = %(team)s AND member_link.expires_at > now()
RETURNING member_link.member_id;

-- name: count_links
-- How many links to sign in were made for a member of late.
SELECT count(*) AS count FROM member_link WHERE member_id = %(member)s AND made_at > now() - interval '15 minutes';

-- name: note_invited
-- Notes when a member was invited by mail.
UPDATE member SET invited_at = now() WHERE id = %(member)s;

-- name: list_accounts
-- How the accounts of a team's members stand.
SELECT count(*) AS members, count(member.confirmed_at) AS confirmed,
    count(*) FILTER (WHERE member.confirmed_at IS NULL AND member.invited_at IS NOT NULL) AS invited
FROM record LEFT JOIN member ON member.table_id = record.table_id AND member.number = record.number
WHERE record.table_id = %(table)s AND record.removed_at IS NULL;

-- name: own_responses
-- The responses of a member to forms that show them, the latest first.
SELECT form.id AS form_id, response.number, response.stage, response.payment, response.received_at, response.edition,
    edition.definition ->> 'title' AS title, edition.definition ->> 'name' AS name, response.told ->> 'locale' AS locale,
    kept_answers.until
FROM response
JOIN form ON form.id = response.form_id
JOIN edition ON edition.form_id = response.form_id AND edition.number = response.edition
LEFT JOIN kept_answers ON kept_answers.form_id = response.form_id AND kept_answers.number = response.number
WHERE response.member_id = %(member)s AND form.deleted_at IS NULL AND form.team_id = %(team)s
    AND (form.access ->> 'own')::boolean AND NOT response.held
    AND (response.stage IN ('waiting', 'complete') OR (response.stage = 'kept' AND kept_answers.until > now()))
ORDER BY response.received_at DESC, response.form_id, response.number LIMIT %(most)s;

-- name: own_response
-- One of them.
SELECT response.stage FROM response JOIN form ON form.id = response.form_id
WHERE response.member_id = %(member)s AND response.form_id = %(form)s AND response.number = %(number)s
    AND form.deleted_at IS NULL AND (form.access ->> 'own')::boolean AND NOT response.held
    AND response.stage IN ('kept', 'waiting', 'complete');

-- name: open_kept
-- Lets a member go on with what they kept, by a digest beside that of the private link.
UPDATE kept_answers SET member_digest = %(digest)s FROM response
WHERE kept_answers.form_id = %(form)s AND kept_answers.number = %(number)s AND kept_answers.until > now()
    AND response.form_id = kept_answers.form_id AND response.number = kept_answers.number
    AND response.member_id = %(member)s AND response.stage = 'kept'
RETURNING kept_answers.number;

-- name: own_forms
-- The forms that a member may fill in and that say so on their own page, by title.
SELECT form.id, form.slug, edition.definition ->> 'title' AS title, edition.definition ->> 'name' AS name
FROM form JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND (form.access ->> 'own')::boolean
    AND coalesce((form.access ->> 'online')::boolean, true)
    AND (form.access ->> 'who' IN ('members', 'groups'))
    AND (form.access ->> 'who' = 'members' OR form.access -> 'groups' ?| %(groups)s::text[])
ORDER BY lower(edition.definition ->> 'title'), form.id LIMIT %(most)s;

-- name: claim_for_member
-- Makes a response a member's, where it is nobody's.
UPDATE response SET member_id = %(member)s
WHERE form_id = %(form)s AND number = %(number)s AND member_id IS NULL AND filled_by IS NULL;

-- name: forget_member
-- Forgets a member for good: the record and its history, the account with its sessions and links.
-- Their responses say no more who filled them in.
WITH unnamed AS (
    UPDATE response SET told = told || '{"visitor": {}, "groups": []}' FROM member
    WHERE member.table_id = %(table)s AND member.number = %(number)s AND response.member_id = member.id
)
DELETE FROM record WHERE table_id = %(table)s AND number = %(number)s;

-- name: find_team_of
-- The team of a form that is there, as its members reach it.
SELECT team.id, team.name, team.slug FROM team JOIN form ON form.team_id = team.id
WHERE form.id = %(form)s AND form.deleted_at IS NULL;

-- name: seen_forms
-- The forms of a team of which its members see the responses of others, by title.
SELECT form.id, form.slug, edition.definition ->> 'title' AS title, edition.definition ->> 'name' AS name
FROM form JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND form.access ->> 'others' IN ('groups', 'all')
    AND (form.access ->> 'who' = 'members'
        OR (form.access ->> 'who' = 'groups' AND form.access -> 'groups' ?| %(groups)s::text[]))
ORDER BY lower(edition.definition ->> 'title'), form.id LIMIT %(most)s;

-- name: seen_responses
-- Responses to a form that a member of these groups may see though they are others', the latest first: `number` picks
-- one.
SELECT response.number, response.received_at, response.told -> 'visitor' ->> 'name' AS by_name
FROM response JOIN form ON form.id = response.form_id
WHERE response.form_id = %(form)s AND form.team_id = %(team)s AND form.deleted_at IS NULL
    AND (form.access ->> 'who' = 'members'
        OR (form.access ->> 'who' = 'groups' AND form.access -> 'groups' ?| %(groups)s::text[]))
    AND (form.access ->> 'others' = 'all'
        OR (form.access ->> 'others' = 'groups' AND response.told -> 'groups' ?| %(groups)s::text[]))
    AND response.stage = 'complete' AND NOT response.held AND NOT response.test
    AND (%(number)s::integer IS NULL OR response.number = %(number)s)
ORDER BY response.number DESC LIMIT %(most)s;
