-- Ledgers learn how a response's booking stands; what has one is taken up anew.
DO $$
DECLARE
    ledger_of uuid;
BEGIN
    FOR ledger_of IN SELECT form_id FROM ledger LOOP
        EXECUTE format(
            'ALTER TABLE IF EXISTS ledgers.%I ADD COLUMN IF NOT EXISTS booking text COLLATE "C" DEFAULT %L',
            'f_' || replace(ledger_of::text, '-', ''), 'none');
    END LOOP;
END
$$;

INSERT INTO ledger_due (form_id, number)
SELECT response.form_id, response.number FROM response JOIN ledger ON ledger.form_id = response.form_id
WHERE response.booking <> 'none';
