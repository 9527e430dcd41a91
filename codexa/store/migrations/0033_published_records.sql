-- Records that anybody may read: since when; NULL for one that waits, or whose table publishes nothing.
ALTER TABLE record ADD COLUMN published_at timestamptz;
CREATE INDEX record_published ON record (table_id, published_at DESC, number DESC)
    WHERE published_at IS NOT NULL AND removed_at IS NULL;
-- Where they are read: an address of the team that no other of its tables has.
CREATE UNIQUE INDEX data_table_address ON data_table (team_id, (definition -> 'published' ->> 'address'))
    WHERE deleted_at IS NULL;
ALTER TABLE record_change DROP CONSTRAINT record_change_kind_check;
ALTER TABLE record_change ADD CONSTRAINT record_change_kind_check
    CHECK (kind IN ('changed', 'removed', 'brought back', 'published', 'taken back'));
