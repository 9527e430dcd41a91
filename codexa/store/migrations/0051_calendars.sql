-- Calendars of other systems (CalDAV, RFC 4791) in which follow-ups keep entries, and what stands there of a response.
CREATE TABLE calendar (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    name text NOT NULL,
    address text NOT NULL,
    user_name text NOT NULL,
    password bytea NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (team_id, name)
);

CREATE TABLE calendar_entry (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    follow_up text NOT NULL,
    calendar_id uuid NOT NULL REFERENCES calendar ON DELETE CASCADE,
    uid text NOT NULL,
    sequence integer NOT NULL,
    PRIMARY KEY (form_id, number, follow_up),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
CREATE INDEX calendar_entry_in ON calendar_entry (calendar_id);
