-- Records are chosen by what they are called, too: in links, in cells, in lines of files.
CREATE INDEX record_called ON record (table_id, lower(btrim(name))) WHERE removed_at IS NULL;
