-- Who is in the workbench of a form just now, and where; a row is out of date after some seconds.
CREATE TABLE presence (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    tab text NOT NULL,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    area text NOT NULL,
    part text,
    seen_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (form_id, tab)
);

-- Brands that many forms of a team use; a form names one and keeps a copy, for when it is deleted.
CREATE TABLE brand (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    name text NOT NULL CHECK (name <> ''),
    look jsonb NOT NULL,
    changed_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (team_id, name)
);

-- Pictures that a team put into its forms; their content lies in the folder of files under this id.
CREATE TABLE picture (
    id uuid PRIMARY KEY,
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    name text NOT NULL,
    media_type text NOT NULL,
    size bigint NOT NULL CHECK (size > 0),
    width integer NOT NULL,
    height integer NOT NULL,
    stored_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX picture_of_team ON picture (team_id, stored_at DESC);
