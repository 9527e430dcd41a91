"""Making the account that a response says: once for an address, in the transaction that ends the run."""

from pathlib import Path

from codexa.core.errors import AnswerError
from codexa.core.tables.members import member_address
from codexa.services.errands.asking import ask
from codexa.services.follow_ups.outcomes import NeverError
from codexa.services.members import roll
from codexa.services.members.mails import INVITATION
from codexa.store import members
from codexa.store.database import Connection
from codexa.store.runs import Run


def keep(connection: Connection, run: Run, _folder: Path) -> str:
    """Make an account, or find the one that there is, and return what was done, in words. Raises NeverError."""
    content = run.content
    try:
        address = member_address(content["email"])
    except AnswerError as error:
        raise NeverError(f"{content['email']}: {error.message}") from None
    team = members.team_of_form(connection, form=run.form_id)
    try:
        member, made = roll.enrol(connection, team=team, email=address, name=content["name"], groups=content["groups"])
    except roll.NotEnrolledError as error:
        raise NeverError(str(error)) from None
    members.claim_for_member(connection, member=member, form=run.form_id, number=run.number)
    if made and content["mail"]:
        members.note_invited(connection, member=member)
        about = {"team": str(team), "member": str(member), "locale": content["locale"]}
        ask(connection, INVITATION, about, team=team)
    return f"{address} has an account now" if made else f"{address} has an account already"
