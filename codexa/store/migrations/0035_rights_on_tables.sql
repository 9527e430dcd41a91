-- Who may see a table and who may change its records: everybody of the team from this role on.
ALTER TABLE data_table
    ADD COLUMN seen_by text NOT NULL DEFAULT 'reviewer' CHECK (seen_by IN ('viewer', 'reviewer', 'editor', 'owner')),
    ADD COLUMN changed_by text NOT NULL DEFAULT 'editor' CHECK (changed_by IN ('reviewer', 'editor', 'owner'));
