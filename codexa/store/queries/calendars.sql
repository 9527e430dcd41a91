-- name: list_calendars
-- The calendars of a team, by name; their passwords stay where they are.
SELECT id, name, address, user_name FROM calendar WHERE team_id = %(team)s ORDER BY lower(name), id;

-- name: insert_calendar
-- Takes up a calendar; no row where the team has one of that name.
INSERT INTO calendar (team_id, name, address, user_name, password)
VALUES (%(team)s, %(name)s, %(address)s, %(user_name)s, %(password)s)
ON CONFLICT (team_id, name) DO NOTHING RETURNING id;

-- name: find_calendar
-- A calendar of a team, with what is signed in by.
SELECT id, name, address, user_name, password FROM calendar WHERE team_id = %(team)s AND id = %(calendar)s;

-- name: forms_with
-- The forms of a team whose draft or live edition keeps entries in a calendar.
SELECT form.name FROM form LEFT JOIN edition ON edition.form_id = form.id AND edition.number = form.live_edition
WHERE form.team_id = %(team)s AND form.deleted_at IS NULL
    AND (position(%(calendar)s::text IN form.draft::text) > 0
        OR position(%(calendar)s::text IN edition.definition::text) > 0)
ORDER BY lower(form.name), form.id LIMIT 10;

-- name: delete_calendar
-- Removes a calendar; what stands in it stays there, and is nobody's here.
DELETE FROM calendar WHERE team_id = %(team)s AND id = %(calendar)s RETURNING name;

-- name: calendar_of_form
-- A calendar, where it is of the team that a form belongs to.
SELECT calendar.id, calendar.name, calendar.address, calendar.user_name, calendar.password
FROM calendar JOIN form ON form.team_id = calendar.team_id
WHERE form.id = %(form)s AND calendar.id = %(calendar)s;

-- name: ids_for
-- The calendars of the team that a form belongs to.
SELECT calendar.id FROM calendar WHERE calendar.team_id = home_team(%(form)s);

-- name: find_entry
-- The entry of a response that a follow-up has made: in which calendar, and how often it was changed.
SELECT calendar_id, uid, sequence FROM calendar_entry
WHERE form_id = %(form)s AND number = %(number)s AND follow_up = %(follow_up)s;

-- name: put_entry
-- Notes where the entry of a response stands.
INSERT INTO calendar_entry (form_id, number, follow_up, calendar_id, uid, sequence)
VALUES (%(form)s, %(number)s, %(follow_up)s, %(calendar)s, %(uid)s, %(sequence)s)
ON CONFLICT (form_id, number, follow_up) DO UPDATE SET calendar_id = EXCLUDED.calendar_id, uid = EXCLUDED.uid,
    sequence = EXCLUDED.sequence;

-- name: remove_entry
-- Notes that the entry of a response stands nowhere any more.
DELETE FROM calendar_entry WHERE form_id = %(form)s AND number = %(number)s AND follow_up = %(follow_up)s;
