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
VALUES (%(form)s, %(number)s, %(account)s, %(amount)s, %(currency)s, %(payer)s, %(cards)s, %(due_until)s)
RETURNING id;

-- name: insert_plan
-- What is to follow a payment.
INSERT INTO plan (payment_id, amount, every, unit, times, starts_on, paid_now, words)
VALUES (%(payment)s, %(amount)s, %(every)s, %(unit)s, %(times)s, %(starts_on)s, %(paid_now)s, %(words)s);

-- name: find_plan
-- What follows a payment.
SELECT payment_id, amount, every, unit, times, starts_on, paid_now, words, state, next_on, stopped_by FROM plan
WHERE payment_id = %(payment)s;

-- name: set_plan
-- Notes how a plan stands. One that is to be stopped runs no more until it is; one that is over stays so, though an
-- answer that the provider gave before comes after.
UPDATE plan SET looked_at = now(),
    next_on = CASE WHEN state IN ('stopped', 'ended') THEN NULL ELSE %(next_on)s::date END,
    state = CASE WHEN state IN ('stopped', 'ended') OR (state = 'stopping' AND %(state)s = 'running') THEN state
        ELSE %(state)s END
WHERE payment_id = %(payment)s;

-- name: ask_to_stop
-- Notes that a plan is to be stopped, and by whom.
UPDATE plan SET state = 'stopping', stopped_by = %(person)s WHERE payment_id = %(payment)s AND state = 'running';

-- name: plans_to_look_at
-- Plans that are to be stopped, of which a day has come, or that nobody has looked at for a day; with their accounts.
SELECT plan.payment_id AS id, payment.account_id, plan.state FROM plan JOIN payment ON payment.id = plan.payment_id
WHERE plan.state IN ('running', 'stopping') AND plan.looked_at < now() - CASE
    WHEN plan.state = 'stopping' OR plan.next_on <= current_date THEN interval '1 minute' ELSE interval '1 day' END
ORDER BY plan.looked_at LIMIT %(most)s;

-- name: touch_plan
-- Notes that a plan was looked at, and nothing was learned.
UPDATE plan SET looked_at = now() WHERE payment_id = %(payment)s;

-- name: running_plans
-- How many plans of a form still charge somebody.
SELECT count(*) AS running FROM plan JOIN payment ON payment.id = plan.payment_id
WHERE payment.form_id = %(form)s AND plan.state IN ('running', 'stopping');

-- name: insert_charge
-- A charge of a plan, as the provider made it; it is for whom and through which account the first payment was.
INSERT INTO payment (form_id, number, account_id, currency, payer, cards, due_until, amount, turn, day, provider_id, page)
SELECT form_id, number, account_id, currency, payer, cards, now(), %(amount)s, %(turn)s, %(day)s, %(provider_id)s, ''
FROM payment WHERE id = %(first)s
RETURNING id;

-- name: number_receipt
-- Gives what was just paid the team's next receipt number; tries get none.
WITH next AS (
    UPDATE team SET receipts = receipts + 1 FROM form JOIN response ON response.form_id = form.id
    WHERE form.team_id = team.id AND form.id = %(form)s AND response.number = %(number)s AND NOT response.test
    RETURNING team.receipts
)
UPDATE payment SET receipt = next.receipts FROM next WHERE payment.id = %(payment)s;

-- name: find_payment
-- A payment of a response: what is paid at first is turn 0, later charges follow.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at, turn, day, receipt
FROM payment WHERE form_id = %(form)s AND number = %(number)s AND turn = %(turn)s;

-- name: payment_of_provider
-- The payment that a provider calls so.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at, turn, day, receipt
FROM payment WHERE account_id = %(account)s AND provider_id = %(provider_id)s;

-- name: payment_by_id
-- A payment.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at, turn, day, receipt
FROM payment WHERE id = %(payment)s;

-- name: payments_of
-- What was paid for a response: at first, and later by its plan.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at, turn, day, receipt
FROM payment WHERE form_id = %(form)s AND number = %(number)s ORDER BY turn;

-- name: lock_first
-- What is paid for a response at first; whoever would take up news of any of its payments waits.
SELECT id, form_id, number, account_id, amount, currency, payer, cards, state, reason, card, refunded, provider_id,
    page, due_until, created_at, changed_at, turn, day, receipt
FROM payment WHERE form_id = %(form)s AND number = %(number)s AND turn = 0 FOR UPDATE;

-- name: lock_payment
-- A payment, and whoever else would change it waits.
SELECT payment.id, payment.form_id, payment.number, account_id, amount, currency, payer, cards, payment.state, reason,
    card, refunded, provider_id, page, due_until, payment.created_at, changed_at, turn, day, receipt
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

-- name: set_facet
-- Keeps true what a response says of all its payments, once it was paid at first: that a charge of its plan has failed
-- comes first, then how much was given back.
UPDATE response SET payment = (
    SELECT CASE WHEN bool_or(payment.state = 'failed') THEN 'failed'
        WHEN sum(payment.refunded) = 0 THEN 'paid'
        WHEN sum(payment.refunded) = sum(payment.amount) THEN 'refunded' ELSE 'part refunded' END
    FROM payment WHERE (payment.form_id, payment.number) = (response.form_id, response.number)
)
WHERE form_id = %(form)s AND number = %(number)s AND stage = 'complete';

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
-- Payments of the team, or of one form of it, the latest first; `find` looks in the payer, the card and the numbers.
SELECT payment.id, payment.form_id, payment.number, payment.account_id, payment.amount, payment.currency, payment.payer,
    payment.cards, payment.state, payment.reason, payment.card, payment.refunded, payment.provider_id, payment.page,
    payment.due_until, payment.created_at, payment.changed_at, payment.turn, payment.day, payment.receipt,
    form.draft ->> 'name' AS form_name, form.draft ->> 'locale' AS locale, response.test,
    coalesce(plan.words, '') AS plan, plan.next_on,
    -- Nothing follows a payment that was never made.
    CASE WHEN plan.state IS NULL THEN '' WHEN payment.state = 'expired' THEN 'stopped' ELSE plan.state END AS plan_state
FROM payment JOIN form ON form.id = payment.form_id
    JOIN response ON (response.form_id, response.number) = (payment.form_id, payment.number)
    LEFT JOIN plan ON plan.payment_id = payment.id
WHERE form.team_id = %(team)s AND (%(form)s::uuid IS NULL OR form.id = %(form)s) AND form.deleted_at IS NULL
    AND (%(form)s::uuid IS NOT NULL OR NOT EXISTS (SELECT FROM form_exception
        WHERE form_exception.form_id = form.id AND form_exception.person_id = %(person)s
            AND form_exception.role IN ('none', 'viewer')))
    AND (%(number)s::integer IS NULL OR payment.number = %(number)s)
    AND (%(state)s = '' OR payment.state = %(state)s OR (%(state)s = 'refunded' AND payment.refunded > 0)
        OR (%(state)s = 'running' AND plan.state IN ('running', 'stopping')))
    AND (%(find)s = '' OR payment.payer::text ILIKE %(like)s OR payment.card ILIKE %(like)s
        OR payment.number::text = %(find)s OR payment.receipt::text = %(find)s OR payment.provider_id = %(find)s)
ORDER BY payment.created_at DESC, payment.turn DESC LIMIT %(most)s;

-- name: sums_of
-- What was paid to the team, or for one form of it, and what was given back, by currency; tries apart.
SELECT payment.currency, response.test, min(form.draft ->> 'locale') AS locale, count(*) FILTER (WHERE payment.state = 'paid') AS count,
    coalesce(sum(payment.amount) FILTER (WHERE payment.state = 'paid'), 0)::bigint AS paid,
    coalesce(sum(payment.refunded), 0)::bigint AS refunded,
    coalesce(sum(payment.amount) FILTER (WHERE payment.state IN ('due', 'failed')), 0)::bigint AS due
FROM payment JOIN form ON form.id = payment.form_id
    JOIN response ON (response.form_id, response.number) = (payment.form_id, payment.number)
WHERE form.team_id = %(team)s AND (%(form)s::uuid IS NULL OR form.id = %(form)s) AND form.deleted_at IS NULL
    AND (%(form)s::uuid IS NOT NULL OR NOT EXISTS (SELECT FROM form_exception
        WHERE form_exception.form_id = form.id AND form_exception.person_id = %(person)s
            AND form_exception.role IN ('none', 'viewer')))
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
