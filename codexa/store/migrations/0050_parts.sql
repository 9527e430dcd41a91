-- Parts of forms that only a group changes: with which one a response stands, since when, and what was said with it.
ALTER TABLE response ADD COLUMN at_part text NOT NULL DEFAULT 'none';

CREATE TABLE standing (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    part text NOT NULL,
    name text NOT NULL,
    groups text[] NOT NULL,
    sent_back_by text,
    remark text NOT NULL,
    by_name text NOT NULL,
    turn integer NOT NULL,
    since timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (form_id, number),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);

DO $$
DECLARE
    ledger_of uuid;
BEGIN
    FOR ledger_of IN SELECT form_id FROM ledger LOOP
        EXECUTE format(
            'ALTER TABLE IF EXISTS ledgers.%I ADD COLUMN IF NOT EXISTS at_part text COLLATE "C" DEFAULT %L',
            'f_' || replace(ledger_of::text, '-', ''), 'none');
    END LOOP;
END
$$;
