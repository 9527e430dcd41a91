"""Accounts with providers, a form's payments, and what providers tell."""

from decimal import Decimal
from uuid import UUID

from flask import Blueprint, Response, current_app, request

from codexa.services import audit
from codexa.services.payments import accounts, hearing, listing, plan_commands, refunding
from codexa.services.payments.provider import NotFromProviderError, ProviderAwayError, ProviderRefusesError
from codexa.services.payments.settling import Way
from codexa.services.roles import Right
from codexa.settings import Settings
from codexa.web.contract.payments import (
    AccountReply,
    AccountsReply,
    CardsReply,
    DoneReply,
    MoneyEventReply,
    NewAccountRequest,
    PaymentInFullReply,
    PaymentReply,
    PaymentsReply,
    RefundRequest,
    SumsReply,
    TestedReply,
    ToComeReply,
)
from codexa.web.database import connection, editions
from codexa.web.endpoint import endpoint, error_reply
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import BadRequestError

blueprint = Blueprint("payments", __name__)
told = Blueprint("told", __name__)

_FORM = "/api/forms/<uuid:form>"


def way() -> Way:
    """Return what payments are settled with."""
    return Way(connect=connection, editions=editions(), settings=_settings())


def _settings() -> Settings:
    settings: Settings = current_app.config["SETTINGS"]
    return settings


@endpoint(blueprint, "GET", "/api/accounts", reply=AccountsReply)
def list_accounts() -> AccountsReply:
    """Return the team's accounts with providers."""
    found = accounts.list_accounts(connection, who=may(Right.EDIT_FORMS))
    return AccountsReply(accounts=[AccountReply.model_validate(each) for each in found])


@endpoint(blueprint, "GET", "/api/accounts/practice/cards", reply=CardsReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def practice_cards() -> CardsReply:
    """Return the kinds of cards to practise with; none while the practice bank does not answer."""
    may(Right.EDIT_FORMS)
    return CardsReply(cards=accounts.practice_cards(_settings()))


@endpoint(blueprint, "POST", "/api/accounts", body=NewAccountRequest, reply=AccountReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def add_account(asked: NewAccountRequest) -> AccountReply:
    """Take up an account by its secret key, once its provider knows it."""
    who = may(Right.KEEP_ACCOUNTS)
    return AccountReply.model_validate(accounts.add_account(connection, _settings(), who=who, secret=asked.secret))


@endpoint(blueprint, "POST", "/api/accounts/<uuid:account>/test", reply=TestedReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def test_account(account: UUID) -> TestedReply:
    """Ask an account's provider whether it knows the key."""
    who = may(Right.KEEP_ACCOUNTS)
    return TestedReply(told=accounts.test_account(connection, _settings(), who=who, account=account))


@endpoint(blueprint, "DELETE", "/api/accounts/<uuid:account>")
def remove_account(account: UUID) -> None:
    """Remove an account that nothing was paid through."""
    accounts.remove_account(connection, who=may(Right.KEEP_ACCOUNTS), account=account)


@endpoint(blueprint, "GET", "/api/payments", reply=PaymentsReply)
def list_all_payments() -> PaymentsReply:
    """Return the latest payments of all forms; `state` and `find` in the query narrow them down."""
    return _listed(None)


@endpoint(blueprint, "GET", f"{_FORM}/payments", reply=PaymentsReply)
def list_payments(form: UUID) -> PaymentsReply:
    """Return a form's latest payments; `state` and `find` in the query narrow them down."""
    return _listed(form)


def _listed(form: UUID | None) -> PaymentsReply:
    who = may(Right.SEE_RESPONSES)
    state, find = request.args.get("state", ""), request.args.get("find", "")[:100]
    if state not in listing.STATES:
        raise BadRequestError(f"state is one of {', '.join(listing.STATES[1:])}, or left out.")
    found = listing.payments_of(connection, who=who, form=form, state=state, find=find)
    return PaymentsReply(
        payments=[PaymentReply.model_validate(each) for each in found.payments],
        sums=[SumsReply.model_validate(each) for each in found.sums],
    )


@endpoint(blueprint, "GET", f"{_FORM}/payments/<number:number>", reply=PaymentInFullReply)
def payment_in_full(form: UUID, number: int) -> PaymentInFullReply:
    """Return all that came of a response's payment."""
    found = listing.payment_in_full(connection, who=may(Right.SEE_RESPONSES), form=form, number=number)
    return PaymentInFullReply(
        payments=[PaymentReply.model_validate(each) for each in found.payments],
        to_come=[ToComeReply.model_validate(each) for each in found.to_come],
        more=found.more,
        events=[MoneyEventReply.model_validate(each) for each in found.events],
    )


@blueprint.get("/api/payments.csv")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def all_payments_csv() -> Response:
    """The payments of all forms as CSV."""
    return _as_csv(None)


@blueprint.get(f"{_FORM}/payments.csv")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def payments_csv(form: UUID) -> Response:
    """A form's payments as CSV."""
    return _as_csv(form)


def _as_csv(form: UUID | None) -> Response:
    who = may(Right.SEE_RESPONSES)
    content = listing.payments_as_csv(connection, who=who, form=form)
    audit.keep(connection, who, "exported" if form else "payments exported", form, what="payments.csv")
    headers = {"Content-Disposition": 'attachment; filename="payments.csv"', "Cache-Control": "no-store"}
    return Response("\ufeff" + content, headers=headers, mimetype="text/csv")


@endpoint(blueprint, "POST", f"{_FORM}/payments/<number:number>/refunds", body=RefundRequest, reply=DoneReply)
def refund(asked: RefundRequest, form: UUID, number: int) -> DoneReply:
    """Give so much of a payment back."""
    who, amount = may(Right.REFUND), Decimal(asked.amount)
    return DoneReply(told=refunding.refund(way(), who=who, form=form, number=number, amount=amount, turn=asked.turn))


@endpoint(blueprint, "POST", f"{_FORM}/payments/<number:number>/stop", reply=DoneReply)
def stop_plan(form: UUID, number: int) -> DoneReply:
    """Have nothing more charged for a response."""
    return DoneReply(told=plan_commands.stop_plan(way(), who=may(Right.CHARGE), form=form, number=number))


@endpoint(blueprint, "POST", f"{_FORM}/payments/<number:number>/charges/<number:turn>/again", reply=DoneReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def charge_again(form: UUID, number: int, turn: int) -> DoneReply:
    """Try a later charge again that has failed."""
    who = may(Right.CHARGE)
    return DoneReply(told=plan_commands.charge_again(way(), who=who, form=form, number=number, turn=turn))


@told.post("/api/told/<uuid:account>")
def hear(account: UUID) -> Response:
    """Hear an event of an account's provider; it is told again where it can't be taken up now."""
    try:
        hearing.hear(way(), account=account, headers=dict(request.headers), body=request.get_data())
    except NotFromProviderError as error:
        return error_reply("not_from_provider", str(error), 403)
    except (ProviderAwayError, ProviderRefusesError) as error:
        return error_reply("provider_away", str(error), 503)
    return Response(status=204)
