-- How many places of a record are taken, by the column that says how many there are. What responses have taken of it
-- stands in claim, under the name record:TABLE:NUMBER:COLUMN; this is their sum, of all forms, kept by a trigger.
CREATE TABLE record_taken (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    column_id text NOT NULL,
    taken bigint NOT NULL CHECK (taken >= 0),
    PRIMARY KEY (table_id, number, column_id),
    FOREIGN KEY (table_id, number) REFERENCES record ON DELETE CASCADE
);

CREATE FUNCTION count_places() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    name text := CASE WHEN TG_OP = 'DELETE' THEN OLD.name ELSE NEW.name END;
    more bigint := 0;
BEGIN
    IF TG_OP <> 'INSERT' AND OLD.released_at IS NULL THEN more := more - OLD.quantity; END IF;
    IF TG_OP <> 'DELETE' AND NEW.released_at IS NULL THEN more := more + NEW.quantity; END IF;
    IF more <> 0 THEN
        UPDATE record_taken SET taken = taken + more
        WHERE table_id = split_part(name, ':', 2)::uuid AND number = split_part(name, ':', 3)::integer
            AND column_id = split_part(name, ':', 4);
    END IF;
    RETURN NULL;
END $$;
CREATE TRIGGER claim_of_places_made AFTER INSERT ON claim
    FOR EACH ROW WHEN (NEW.name LIKE 'record:%') EXECUTE FUNCTION count_places();
CREATE TRIGGER claim_of_places_changed AFTER UPDATE ON claim
    FOR EACH ROW WHEN (NEW.name LIKE 'record:%') EXECUTE FUNCTION count_places();
CREATE TRIGGER claim_of_places_gone AFTER DELETE ON claim
    FOR EACH ROW WHEN (OLD.name LIKE 'record:%') EXECUTE FUNCTION count_places();
