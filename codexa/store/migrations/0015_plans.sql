-- What a plan charges later is a payment of its own: `turn` 0 is what is paid at first, then charges are counted, each
-- due on its `day`. A charge that is declined has failed until it is charged again. What is paid gets the team's next
-- `receipt` number; tries get none.
ALTER TABLE payment
    ADD COLUMN turn integer NOT NULL DEFAULT 0 CHECK (turn >= 0),
    ADD COLUMN day date,
    ADD COLUMN receipt integer,
    DROP CONSTRAINT payment_form_id_number_key,
    ADD CONSTRAINT payment_form_id_number_turn_key UNIQUE (form_id, number, turn),
    DROP CONSTRAINT payment_amount_check,
    ADD CONSTRAINT payment_amount_check CHECK (amount >= 0),
    DROP CONSTRAINT payment_state_check,
    ADD CONSTRAINT payment_state_check CHECK (state IN ('due', 'paid', 'failed', 'expired'));

ALTER TABLE team ADD COLUMN receipts integer NOT NULL DEFAULT 0;

-- Payments that come back: what follows a first payment. `times` counts what is still to come after it (NULL: without
-- an end), reckoned from `starts_on`; `words` are those that the payer agreed to.
CREATE TABLE plan (
    payment_id uuid PRIMARY KEY REFERENCES payment ON DELETE CASCADE,
    amount bigint NOT NULL CHECK (amount > 0),
    every integer NOT NULL CHECK (every > 0),
    unit text NOT NULL CHECK (unit IN ('day', 'week', 'month', 'year')),
    times integer CHECK (times > 0),
    starts_on date NOT NULL,
    paid_now boolean NOT NULL,
    words text NOT NULL,
    state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'stopping', 'stopped', 'ended')),
    next_on date,
    stopped_by uuid REFERENCES person ON DELETE SET NULL,
    looked_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX plan_running ON plan (looked_at) WHERE state IN ('running', 'stopping');
