-- name: find
-- With which part of its form a response stands, who may change it there, and what was said with it.
SELECT standing.part, standing.name, standing.groups, standing.sent_back_by, standing.remark, standing.by_name,
    standing.turn, standing.since, form.name AS form_name, form.team_id
FROM standing JOIN response USING (form_id, number) JOIN form ON form.id = standing.form_id
WHERE standing.form_id = %(form)s AND standing.number = %(number)s AND form.deleted_at IS NULL
    AND response.stage = 'complete';

-- name: count_turns
-- How often a response went from part to part.
SELECT count(*) FROM event
WHERE form_id = %(form)s AND number = %(number)s AND kind IN ('handed on', 'handed back');

-- name: put
-- Lets a response stand with a part from now on.
INSERT INTO standing (form_id, number, part, name, groups, sent_back_by, remark, by_name, turn)
VALUES (%(form)s, %(number)s, %(part)s, %(name)s, %(groups)s, %(sent_back_by)s, %(remark)s, %(by_name)s, %(turn)s)
ON CONFLICT (form_id, number) DO UPDATE SET part = EXCLUDED.part, name = EXCLUDED.name, groups = EXCLUDED.groups,
    sent_back_by = EXCLUDED.sent_back_by, remark = EXCLUDED.remark, by_name = EXCLUDED.by_name, turn = EXCLUDED.turn,
    since = now();

-- name: remove
-- Lets a response stand with nobody any more.
DELETE FROM standing WHERE form_id = %(form)s AND number = %(number)s;

-- name: set_facet
-- What a response says of where it stands.
UPDATE response SET at_part = %(name)s WHERE form_id = %(form)s AND number = %(number)s;

-- name: may_change
-- Whether somebody of the team may change a response where it stands: as one of its groups; or as an owner, where
-- nobody is in them.
SELECT EXISTS (SELECT FROM person_in_group JOIN membership USING (team_id, person_id)
    WHERE person_in_group.team_id = %(team)s AND person_in_group.code = ANY(%(groups)s)
        AND person_in_group.person_id = %(person)s) OR (
    EXISTS (SELECT FROM membership WHERE team_id = %(team)s AND person_id = %(person)s AND role = 'owner')
    AND NOT EXISTS (SELECT FROM person_in_group JOIN membership USING (team_id, person_id)
        WHERE person_in_group.team_id = %(team)s AND person_in_group.code = ANY(%(groups)s))
    AND NOT EXISTS (SELECT FROM team JOIN record ON record.table_id = team.members_table AND record.removed_at IS NULL
        WHERE team.id = %(team)s AND record.kept -> 'groups' ?| %(groups)s)
    ) OR EXISTS (SELECT FROM team WHERE id = %(team)s AND rehearsed_by = %(person)s) AS may;

-- name: waiting_for_person
-- What stands with a part that a person of the team changes, what stands longest first; for an owner also what nobody
-- else is there for.
SELECT standing.form_id, form.name AS form_name, standing.number, standing.part, standing.name, standing.since,
    standing.remark, standing.by_name
FROM standing JOIN form ON form.id = standing.form_id
    JOIN response ON (response.form_id, response.number) = (standing.form_id, standing.number)
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.stage = 'complete'
    AND (EXISTS (SELECT FROM person_in_group WHERE person_in_group.team_id = form.team_id
            AND person_in_group.code = ANY(standing.groups) AND person_in_group.person_id = %(person)s)
        OR (%(owner)s AND standing.part <> '' AND NOT EXISTS (
            SELECT FROM person_in_group JOIN membership USING (team_id, person_id)
            WHERE person_in_group.team_id = form.team_id AND person_in_group.code = ANY(standing.groups))
        AND NOT EXISTS (
            SELECT FROM team JOIN record ON record.table_id = team.members_table AND record.removed_at IS NULL
            WHERE team.id = form.team_id AND record.kept -> 'groups' ?| standing.groups)))
ORDER BY standing.since, standing.form_id, standing.number LIMIT %(most)s;

-- name: waiting_for_member
-- What stands with a part that a member's groups change, or is back with the member who filled it in.
SELECT standing.form_id, form.name AS form_name, standing.number, standing.part, standing.name, standing.since,
    standing.remark, standing.by_name
FROM standing JOIN form ON form.id = standing.form_id
    JOIN response ON (response.form_id, response.number) = (standing.form_id, standing.number)
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL AND response.stage = 'complete'
    AND (standing.groups && %(groups)s::text[] OR (standing.part = '' AND response.member_id = %(member)s))
ORDER BY standing.since, standing.form_id, standing.number LIMIT %(most)s;

-- name: addresses
-- Whom a part of a team's form is told of: people and members in its groups; where there are none, its owners.
WITH in_groups AS (
    SELECT person.name, person.email FROM person_in_group JOIN membership USING (team_id, person_id)
        JOIN person ON person.id = person_in_group.person_id
    WHERE person_in_group.team_id = %(team)s AND person_in_group.code = ANY(%(groups)s)
    UNION
    SELECT record.kept ->> 'name', record.kept ->> 'email'
    FROM team JOIN record ON record.table_id = team.members_table AND record.removed_at IS NULL
    WHERE team.id = %(team)s AND record.kept -> 'groups' ?| %(groups)s AND record.kept ->> 'email' IS NOT NULL
)
SELECT name, email FROM in_groups
UNION
SELECT person.name, person.email FROM membership JOIN person ON person.id = membership.person_id
WHERE membership.team_id = %(team)s AND membership.role = 'owner' AND NOT EXISTS (SELECT FROM in_groups)
ORDER BY email;

-- name: names
-- With which parts responses of a form stand now.
SELECT DISTINCT name FROM standing WHERE form_id = %(form)s ORDER BY name LIMIT 100;
