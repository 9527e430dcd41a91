-- name: insert_account
-- Takes up an account with a provider; its keys come encrypted.
INSERT INTO account (team_id, provider, name, public_key, secret, last_four, cards)
VALUES (%(team)s, %(provider)s, %(name)s, %(public_key)s, %(secret)s, %(last_four)s, %(cards)s)
RETURNING id;

-- name: set_hook_secret
-- Keeps what the provider signs its events with.
UPDATE account SET hook_secret = %(hook_secret)s WHERE id = %(account)s;

-- name: delete_account
-- Removes an account of the team that nothing was paid through.
DELETE FROM account WHERE id = %(account)s AND team_id = %(team)s
    AND NOT EXISTS (SELECT FROM payment WHERE payment.account_id = account.id);

-- name: list_accounts
-- The team's accounts.
SELECT id, team_id, provider, name, public_key, secret, last_four, hook_secret, cards
FROM account WHERE team_id = %(team)s ORDER BY created_at;

-- name: find_account
-- An account.
SELECT id, team_id, provider, name, public_key, secret, last_four, hook_secret, cards FROM account
WHERE id = %(account)s;

-- name: find_practice_account
-- The practice account.
SELECT id, team_id, provider, name, public_key, secret, last_four, hook_secret, cards FROM account WHERE team_id IS NULL;

-- name: account_of_form
-- The account of a form's team by its id, where it is that team's.
SELECT account.id FROM account JOIN form ON form.team_id = account.team_id
WHERE account.id = %(account)s AND form.id = %(form)s;

-- name: insert_payment
-- What is to be paid for a response.
INSERT INTO payment (form_id, number, account_id, amount, currency, payer, cards, due_until)
VALUES (%(form)s, %(number)s, %(account)s, %(amount)s, %(currency)s, %(payer)s, %(cards)s, %(due_until)s);

-- name: find_payment
-- The payment of a response.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at
FROM payment WHERE form_id = %(form)s AND number = %(number)s;

-- name: payment_of_provider
-- The payment that a provider calls so.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at
FROM payment WHERE account_id = %(account)s AND provider_id = %(provider_id)s;

-- name: payment_by_id
-- A payment.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at
FROM payment WHERE id = %(payment)s;

-- name: lock_payment
-- The same, and whoever else would change it waits.
SELECT payment.id, payment.form_id, payment.number, account_id, amount, currency, payer, cards, payment.state, reason,
    card, refunded, provider_id, page, due_until, payment.created_at, changed_at
FROM payment WHERE id = %(payment)s FOR UPDATE;

-- name: set_asked
-- Notes how the provider calls a payment that is still due, and where it is paid.
UPDATE payment SET provider_id = %(provider_id)s, page = %(page)s, changed_at = now()
WHERE id = %(payment)s AND provider_id IS NULL AND state = 'due';

-- name: set_state
-- Notes how a payment stands.
UPDATE payment SET state = %(state)s, reason = %(reason)s, card = %(card)s, refunded = %(refunded)s, changed_at = now()
WHERE id = %(payment)s;

-- name: set_stage
-- Moves a response on, with what its payment is.
UPDATE response SET stage = %(stage)s, payment = %(payment)s WHERE form_id = %(form)s AND number = %(number)s;

-- name: add_event
-- Notes something that happened to a response; no row where that news had come before.
INSERT INTO event (form_id, number, kind, key, who, person_id, data)
VALUES (%(form)s, %(number)s, %(kind)s, %(key)s, %(who)s, %(person)s, %(data)s)
ON CONFLICT (form_id, number, kind, key) DO NOTHING
RETURNING id;

-- name: unsettled
-- Payments that are due and were asked for, or whose time is over: what the provider says of them is to be looked at.
-- Those that were looked at longest ago come first, so that none keeps others from their turn.
SELECT id, account_id FROM payment
WHERE state = 'due' AND (due_until < now() OR provider_id IS NOT NULL) AND changed_at < now() - interval '30 seconds'
ORDER BY changed_at LIMIT %(most)s;

-- name: touch
-- Notes that a payment was looked at, and nothing was learned.
UPDATE payment SET changed_at = now() WHERE id = %(payment)s;

-- name: changed_since
-- The payments of an account that changed since a moment.
SELECT id, provider_id, amount, currency, state, refunded, form_id, number
FROM payment WHERE account_id = %(account)s AND changed_at >= %(since)s AND provider_id IS NOT NULL;

-- name: list_accounts_used
-- Every account that something was asked through.
SELECT id, team_id, provider, name, public_key, secret, last_four, hook_secret, cards FROM account
WHERE EXISTS (SELECT FROM payment WHERE payment.account_id = account.id);

-- name: list_payments
-- Payments of a form of the team, the latest first; `find` looks in the payer, the card and the numbers.
SELECT payment.id, payment.form_id, payment.number, payment.account_id, payment.amount, payment.currency, payment.payer,
    payment.cards, payment.state, payment.reason, payment.card, payment.refunded, payment.provider_id, payment.page,
    payment.due_until, payment.created_at, payment.changed_at
FROM payment JOIN form ON form.id = payment.form_id
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
    AND (%(state)s = '' OR payment.state = %(state)s OR (%(state)s = 'refunded' AND payment.refunded > 0))
    AND (%(find)s = '' OR payment.payer::text ILIKE %(like)s OR payment.card ILIKE %(like)s
        OR payment.number::text = %(find)s OR payment.provider_id = %(find)s)
ORDER BY payment.created_at DESC LIMIT %(most)s;

-- name: sums_of_form
-- What was paid for a form and what was given back, by currency; tries apart.
SELECT payment.currency, response.test, count(*) FILTER (WHERE payment.state = 'paid') AS count,
    coalesce(sum(payment.amount) FILTER (WHERE payment.state = 'paid'), 0)::bigint AS paid,
    coalesce(sum(payment.refunded), 0)::bigint AS refunded,
    coalesce(sum(payment.amount) FILTER (WHERE payment.state = 'due'), 0)::bigint AS due
FROM payment JOIN form ON form.id = payment.form_id
    JOIN response ON (response.form_id, response.number) = (payment.form_id, payment.number)
WHERE form.team_id = %(team)s AND form.id = %(form)s AND form.deleted_at IS NULL
GROUP BY payment.currency, response.test ORDER BY response.test, payment.currency;

-- name: insert_refund
-- Asks once for so much to be given back, where so much is left of what was paid and not asked for yet.
INSERT INTO refund (payment_id, amount, asked_by)
SELECT payment.id, %(amount)s, %(person)s FROM payment
WHERE payment.id = %(payment)s AND payment.state = 'paid'
    AND payment.amount - payment.refunded - (
        SELECT coalesce(sum(amount), 0) FROM refund WHERE payment_id = payment.id AND state = 'asked'
    ) >= %(amount)s
RETURNING id;

-- name: end_refund
-- Notes how a refund ended.
UPDATE refund SET state = %(state)s WHERE id = %(refund)s;

-- name: open_refunds
-- Refunds whose end is not known: asked for a while ago.
SELECT refund.id, refund.payment_id, refund.amount, refund.asked_by FROM refund
WHERE state = 'asked' AND created_at < now() - interval '1 minute' ORDER BY created_at LIMIT %(most)s;
