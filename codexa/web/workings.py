"""How the server works behind the pages, for owners: jobs and mail. And who is in the team, for who writes to them."""

from flask import Blueprint, current_app

from codexa.services.errands import asking
from codexa.services.roles import Right
from codexa.settings import Settings
from codexa.store import people
from codexa.web.contract.workings import (
    AskedReply,
    ErrandReply,
    PeopleReply,
    QueueReply,
    TeamPersonReply,
    WorkingsReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import LINK_RATE, limiter, who_is_counted

blueprint = Blueprint("workings", __name__, url_prefix="/api")


@endpoint(blueprint, "GET", "/workings", reply=WorkingsReply)
def show() -> WorkingsReply:
    """Return how the queue stands, the latest errands, and how mail is sent."""
    found = asking.workings(connection, who=may(Right.SEE_WORKINGS, used=False))
    settings: Settings = current_app.config["SETTINGS"]
    return WorkingsReply(
        queue=QueueReply.model_validate(found.queue),
        errands=[ErrandReply.model_validate(each) for each in found.errands],
        smtp_host=settings.smtp_host,
        smtp_port=settings.smtp_port,
        smtp_tls=settings.smtp_tls,
        smtp_user=settings.smtp_user,
        mail_from=settings.mail_from,
        mails_per_hour=settings.mails_per_hour,
    )


@endpoint(blueprint, "POST", "/workings/test-mail", reply=AskedReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def test_mail() -> AskedReply:
    """Send a mail to who asks, to see that mail works; how it ended is told among the errands."""
    who = may(Right.SEE_WORKINGS)
    with connection() as database:
        errand = asking.ask(database, "test mail", {"to": who.email, "name": who.person_name}, team=who.team_id)
    return AskedReply(errand=errand)


@endpoint(blueprint, "GET", "/people", reply=PeopleReply)
def list_people() -> PeopleReply:
    """Return the people of the team."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        found = people.list_people(database, team=who.team_id)
    return PeopleReply(people=[TeamPersonReply.model_validate(each) for each in found])
