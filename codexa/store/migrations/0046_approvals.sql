-- Approvals: who is asked about a response, step by step, and what they said.
CREATE TABLE approval (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL,
    number integer NOT NULL,
    follow_up text NOT NULL,
    moment text NOT NULL,
    name text NOT NULL,
    subject text NOT NULL,
    state text NOT NULL DEFAULT 'asked' CHECK (state IN ('asked', 'asked back', 'approved', 'denied', 'withdrawn')),
    at_step integer NOT NULL DEFAULT 0,
    asked_at timestamptz NOT NULL DEFAULT now(),
    ended_at timestamptz,
    UNIQUE (form_id, number, follow_up, moment),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
CREATE INDEX approval_open ON approval (form_id) WHERE state IN ('asked', 'asked back');

-- A step: whether every one of its deciders has to approve, and until when. After that somebody stands in.
CREATE TABLE approval_step (
    approval_id uuid NOT NULL REFERENCES approval ON DELETE CASCADE,
    position integer NOT NULL,
    name text NOT NULL,
    every boolean NOT NULL,
    hours integer,
    remind integer,
    due_at timestamptz,
    PRIMARY KEY (approval_id, position)
);

-- Who decides in a step: a person, whoever is in a group, or whoever has an address; and what was said for them.
CREATE TABLE approval_decider (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    approval_id uuid NOT NULL,
    position integer NOT NULL,
    person_id uuid REFERENCES person ON DELETE CASCADE,
    group_code text,
    address text,
    stands_in boolean NOT NULL DEFAULT FALSE,
    approved_at timestamptz,
    approved_by uuid REFERENCES person,
    FOREIGN KEY (approval_id, position) REFERENCES approval_step ON DELETE CASCADE
);
CREATE INDEX approval_decider_of_step ON approval_decider (approval_id, position);
