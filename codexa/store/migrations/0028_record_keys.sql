-- Records are found by what stands in their columns: a key for each value, "column=key", as the core compares it.
-- NULL where it is not worked out yet; `codexa.cli migrate` does that for what was there before.
ALTER TABLE record ADD COLUMN keys text[];
CREATE INDEX record_keys ON record USING gin (table_id, keys) WHERE removed_at IS NULL;
-- In the order of names, as lists show them.
CREATE INDEX record_name ON record (table_id, name COLLATE "und-x-icu", number) WHERE removed_at IS NULL;
