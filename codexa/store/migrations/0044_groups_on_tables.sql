-- Besides the roles: the groups whose people see a table, and those who change its records.
ALTER TABLE data_table ADD COLUMN seen_groups text[] NOT NULL DEFAULT '{}',
    ADD COLUMN changed_groups text[] NOT NULL DEFAULT '{}';
