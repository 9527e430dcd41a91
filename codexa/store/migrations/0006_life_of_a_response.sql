-- The life of a response: its stage and facets, what it was told when it was accepted, and every step as an event.
ALTER TABLE response
    ADD COLUMN stage text NOT NULL DEFAULT 'complete'
        CHECK (stage IN ('kept', 'waiting', 'complete', 'expired', 'removed')),
    ADD COLUMN payment text NOT NULL DEFAULT 'none'
        CHECK (payment IN ('none', 'due', 'pending', 'paid', 'failed', 'part refunded', 'refunded')),
    ADD COLUMN decision text NOT NULL DEFAULT 'none' CHECK (decision IN ('none', 'asked', 'approved', 'denied')),
    ADD COLUMN status text,
    ADD COLUMN test boolean NOT NULL DEFAULT false,
    ADD COLUMN held boolean NOT NULL DEFAULT false,
    ADD COLUMN told jsonb;

-- Older responses were told the moment they came, in their edition's time zone and language, and no link that is known.
UPDATE response SET told = jsonb_build_object(
    'now', to_char(response.received_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"+00:00"'),
    'zone', coalesce(edition.definition ->> 'time_zone', 'Europe/Berlin'),
    'locale', coalesce(edition.definition ->> 'locale', 'en'),
    'visitor', '{}'::jsonb, 'groups', '[]'::jsonb, 'link', '{}'::jsonb
)
FROM edition WHERE edition.form_id = response.form_id AND edition.number = response.edition;
ALTER TABLE response ALTER COLUMN told SET NOT NULL;

-- One append-only list of all that happened; the second arrival of the same news finds the first.
CREATE TABLE event (
    id bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    kind text NOT NULL,
    key text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT now(),
    who text NOT NULL CHECK (who IN ('visitor', 'person', 'bank', 'clock')),
    person_id uuid REFERENCES person ON DELETE SET NULL,
    data jsonb NOT NULL DEFAULT '{}',
    UNIQUE (form_id, number, kind, key),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
INSERT INTO event (form_id, number, kind, at, who)
SELECT form_id, number, kind, received_at, 'visitor' FROM response, unnest(ARRAY['handed in', 'complete']) AS kind;

-- Numbers come from a row of their own, so that who edits or publishes a form and who answers it never wait for each other.
CREATE TABLE response_counter (
    form_id uuid PRIMARY KEY REFERENCES form ON DELETE CASCADE,
    last_number integer NOT NULL DEFAULT 0
);
INSERT INTO response_counter (form_id, last_number) SELECT id, last_response FROM form;
ALTER TABLE form DROP COLUMN last_response;
