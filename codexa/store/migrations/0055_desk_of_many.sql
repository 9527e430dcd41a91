-- A desk of many forms: whose a form is, its labels, what stands in it to be found by, and filters that a person keeps.
ALTER TABLE form
    ADD COLUMN owner_id uuid REFERENCES person ON DELETE SET NULL,
    ADD COLUMN labels text[] NOT NULL DEFAULT '{}' CHECK (cardinality(labels) <= 20);
UPDATE form SET owner_id = saved_state.saved_by
FROM saved_state WHERE saved_state.form_id = form.id AND saved_state.revision = 1;
CREATE INDEX form_bin ON form (deleted_at) WHERE deleted_at IS NOT NULL;

-- What a draft has to be found by, made anew once it is asked for after a save: [[id, number, title, key], …].
CREATE TABLE form_outline (
    form_id uuid PRIMARY KEY REFERENCES form ON DELETE CASCADE,
    revision integer NOT NULL,
    parts jsonb NOT NULL,
    words text NOT NULL
);

CREATE TABLE desk_view (
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    content jsonb NOT NULL,
    PRIMARY KEY (team_id, person_id, name)
);
