-- Which records name which others, column by column: what is renamed or removed is known where it is named.
CREATE TABLE record_reference (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    column_id text NOT NULL,
    to_table uuid NOT NULL,
    to_number integer NOT NULL,
    PRIMARY KEY (table_id, number, column_id, to_table, to_number),
    FOREIGN KEY (table_id, number) REFERENCES record ON DELETE CASCADE
);
CREATE INDEX record_reference_to ON record_reference (to_table, to_number);
-- What is no longer offered stays where it is named, and nobody chooses it any more.
ALTER TABLE record ADD COLUMN offered boolean NOT NULL DEFAULT TRUE;
