-- A form's address may be chosen by a person; what it was before leads on to it, and is never given to another form.
ALTER TABLE form ADD COLUMN slug_chosen boolean NOT NULL DEFAULT false;
CREATE TABLE former_slug (
    team_id uuid NOT NULL REFERENCES team,
    slug text NOT NULL,
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    PRIMARY KEY (team_id, slug)
);
CREATE INDEX former_slug_form ON former_slug (form_id);
