-- A personal desk is a team of one: its person's own, to be moved to a team form by form.
ALTER TABLE team ADD COLUMN personal_of uuid UNIQUE REFERENCES person ON DELETE CASCADE;
