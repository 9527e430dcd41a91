-- Accounts with providers of payments. Keys are encrypted by the application; without a team it is the practice account.
CREATE TABLE account (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid REFERENCES team ON DELETE CASCADE,
    provider text NOT NULL,
    name text NOT NULL,
    public_key text NOT NULL,
    secret bytea NOT NULL,
    last_four text NOT NULL,
    hook_secret bytea,
    cards text[] NOT NULL DEFAULT '{}',
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX account_of_team ON account (team_id);
CREATE UNIQUE INDEX account_practice ON account ((true)) WHERE team_id IS NULL;
-- Its keys are settings, as it belongs to the installation.
INSERT INTO account (provider, name, public_key, secret, last_four) VALUES ('practice bank', 'Practice', '', '', '');

-- What is to be paid for a response, in minor units; how the provider calls it, once it was asked.
CREATE TABLE payment (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    form_id uuid NOT NULL,
    number integer NOT NULL,
    account_id uuid NOT NULL REFERENCES account,
    amount bigint NOT NULL CHECK (amount > 0),
    currency text NOT NULL,
    payer jsonb NOT NULL,
    cards text[] NOT NULL DEFAULT '{}',
    state text NOT NULL DEFAULT 'due' CHECK (state IN ('due', 'paid', 'expired')),
    reason text NOT NULL DEFAULT '',
    card text NOT NULL DEFAULT '',
    refunded bigint NOT NULL DEFAULT 0 CHECK (refunded BETWEEN 0 AND amount),
    provider_id text,
    page text NOT NULL DEFAULT '',
    due_until timestamptz NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (form_id, number),
    UNIQUE (account_id, provider_id),
    FOREIGN KEY (form_id, number) REFERENCES response (form_id, number) ON DELETE CASCADE
);
CREATE INDEX payment_due ON payment (due_until) WHERE state = 'due';
CREATE INDEX payment_changed ON payment (account_id, changed_at);

-- What was given back, each asked for once.
CREATE TABLE refund (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    payment_id uuid NOT NULL REFERENCES payment ON DELETE CASCADE,
    amount bigint NOT NULL CHECK (amount > 0),
    state text NOT NULL DEFAULT 'asked' CHECK (state IN ('asked', 'done', 'refused')),
    asked_by uuid REFERENCES person ON DELETE SET NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX refund_of_payment ON refund (payment_id);
