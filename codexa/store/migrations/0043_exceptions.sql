-- What somebody may do with one form, in the place of what their role in the team allows; "none" hides it from them.
CREATE TABLE form_exception (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    role text NOT NULL CHECK (role IN ('none', 'viewer', 'reviewer', 'editor')),
    PRIMARY KEY (form_id, person_id)
);
CREATE INDEX form_exception_person ON form_exception (person_id);
