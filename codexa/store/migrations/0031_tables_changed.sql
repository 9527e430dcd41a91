-- What the live edition of a form names of tables that they do not have any more, in words; NULL where all is there.
ALTER TABLE form ADD COLUMN tables_changed text;
