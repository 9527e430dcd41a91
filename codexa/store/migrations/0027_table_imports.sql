-- Records come from files too: what is taken in is of a form or of a table.
ALTER TABLE response_import RENAME TO file_import;
ALTER INDEX response_import_form RENAME TO file_import_form;
ALTER INDEX response_import_pkey RENAME TO file_import_pkey;
ALTER TABLE file_import ALTER COLUMN form_id DROP NOT NULL, ALTER COLUMN edition DROP NOT NULL;
-- Of a table, lines are {"line", "cells" by column id}; by the key column a line means a record that is there, "" for none.
ALTER TABLE file_import
    ADD COLUMN table_id uuid REFERENCES data_table ON DELETE CASCADE,
    ADD COLUMN key_column text NOT NULL DEFAULT '',
    ADD CONSTRAINT file_import_of_one CHECK (num_nonnulls(form_id, table_id) = 1);
CREATE INDEX file_import_table ON file_import (table_id, created_at);
