-- What runs out: how much of each thing is taken, and by which response. How much there is, is said by the edition.
CREATE TABLE claimable (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    name text NOT NULL,
    taken bigint NOT NULL CHECK (taken >= 0),
    PRIMARY KEY (form_id, name)
);
CREATE TABLE claim (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    name text NOT NULL,
    quantity integer NOT NULL CHECK (quantity > 0),
    released_at timestamptz,
    PRIMARY KEY (form_id, number, name),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
