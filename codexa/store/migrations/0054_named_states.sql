-- A state may be given a name, and tells how much it changed of the one before, so that History can put saves together.
ALTER TABLE saved_state
    ADD COLUMN name text NOT NULL DEFAULT '' CHECK (length(name) <= 100),
    ADD COLUMN changes integer NOT NULL DEFAULT 1;
