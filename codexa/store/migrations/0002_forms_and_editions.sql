-- A form has one draft, all its saved states, and its published editions, which nothing can change.
CREATE TABLE form (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    name text NOT NULL,
    slug text NOT NULL CHECK (slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'),
    sites text[] NOT NULL DEFAULT '{}',
    draft jsonb NOT NULL,
    revision integer NOT NULL DEFAULT 1,
    live_edition integer,
    changed_at timestamptz NOT NULL DEFAULT now(),
    changed_by uuid REFERENCES person ON DELETE SET NULL,
    deleted_at timestamptz,
    UNIQUE (team_id, slug)
);
CREATE INDEX form_desk ON form (team_id, changed_at DESC) WHERE deleted_at IS NULL;

-- Every autosave; a clash between two people is settled from these, and history is read from them.
CREATE TABLE saved_state (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    revision integer NOT NULL,
    draft jsonb NOT NULL,
    saved_at timestamptz NOT NULL DEFAULT now(),
    saved_by uuid REFERENCES person ON DELETE SET NULL,
    PRIMARY KEY (form_id, revision)
);

CREATE TABLE edition (
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    number integer NOT NULL CHECK (number > 0),
    definition jsonb NOT NULL,
    revision integer NOT NULL,
    published_at timestamptz NOT NULL DEFAULT now(),
    published_by uuid REFERENCES person ON DELETE SET NULL,
    PRIMARY KEY (form_id, number),
    -- Publishing the same saved state twice, by a double click, makes one edition.
    UNIQUE (form_id, revision)
);
ALTER TABLE form ADD FOREIGN KEY (id, live_edition) REFERENCES edition (form_id, number);

CREATE FUNCTION refuse_edition_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    -- A deleted person may be forgotten; what was published may not change.
    IF (NEW.form_id, NEW.number, NEW.definition, NEW.published_at)
        IS DISTINCT FROM (OLD.form_id, OLD.number, OLD.definition, OLD.published_at) THEN
        RAISE EXCEPTION 'Edition % can not be changed; publish a new one.', OLD.number;
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER edition_is_immutable BEFORE UPDATE ON edition FOR EACH ROW EXECUTE FUNCTION refuse_edition_change();
