-- Who may fill in a form and when, and how links to it look elsewhere: both hold at once, without an edition.
ALTER TABLE form ADD COLUMN access jsonb NOT NULL DEFAULT '{}', ADD COLUMN sharing jsonb NOT NULL DEFAULT '{}',
    ADD COLUMN password_hash text;
-- Grows when it changes who may fill in: what is kept of a response was let in by what holds at that moment.
ALTER TABLE response_counter ADD COLUMN access_turn integer NOT NULL DEFAULT 0;

-- An edition's note, and each time that one became what visitors get.
ALTER TABLE edition ADD COLUMN note text NOT NULL DEFAULT '';
CREATE TABLE went_live (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    form_id uuid NOT NULL,
    edition integer NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    person_id uuid REFERENCES person ON DELETE SET NULL,
    FOREIGN KEY (form_id, edition) REFERENCES edition (form_id, number) ON DELETE CASCADE
);
CREATE INDEX went_live_form ON went_live (form_id, id DESC);
INSERT INTO went_live (form_id, edition, at, person_id)
SELECT form_id, number, published_at, published_by FROM edition ORDER BY form_id, number;

-- Links with values that are signed with a key of the form's. A key that was ended makes its links void.
CREATE TABLE seal_key (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    number integer NOT NULL,
    secret bytea NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz,
    PRIMARY KEY (form_id, number)
);
CREATE TABLE link_batch (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    name text NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    made_by uuid REFERENCES person ON DELETE SET NULL
);
CREATE INDEX link_batch_form ON link_batch (form_id, id DESC);
CREATE TABLE sealed_link (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    batch_id bigint NOT NULL REFERENCES link_batch ON DELETE CASCADE,
    form_id uuid NOT NULL,
    mark text NOT NULL,
    key integer NOT NULL,
    given jsonb NOT NULL,
    until timestamptz,
    uses integer CHECK (uses > 0),
    email text NOT NULL DEFAULT '',
    ended_at timestamptz,
    UNIQUE (form_id, mark),
    FOREIGN KEY (form_id, key) REFERENCES seal_key (form_id, number) ON DELETE CASCADE
);
CREATE INDEX sealed_link_batch ON sealed_link (batch_id, id);

-- How a response came: by which way, from which page, in how many seconds; and by which sealed link.
ALTER TABLE response ADD COLUMN came jsonb NOT NULL DEFAULT '{}',
    ADD COLUMN sealed_link bigint REFERENCES sealed_link ON DELETE SET NULL;
CREATE INDEX response_sealed_link ON response (sealed_link) WHERE sealed_link IS NOT NULL;

-- Links that were sent by mail, and what became of it.
CREATE TABLE link_mail (
    link_id bigint PRIMARY KEY REFERENCES sealed_link ON DELETE CASCADE,
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'sent', 'failed')),
    result text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT now()
);
