-- What somebody of the team has to do about a response.
CREATE TABLE task (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    run text NOT NULL,
    words text NOT NULL,
    person_id uuid REFERENCES person ON DELETE SET NULL,
    group_code text,
    address text,
    due_on date,
    made_at timestamptz NOT NULL DEFAULT now(),
    done_at timestamptz,
    done_by uuid REFERENCES person ON DELETE SET NULL,
    remark text NOT NULL DEFAULT '',
    UNIQUE (form_id, number, run),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
CREATE INDEX task_open ON task (form_id) WHERE done_at IS NULL;
