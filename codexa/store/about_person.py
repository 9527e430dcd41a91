"""Where an e-mail address stands beside answers: as who paid, on links, in mails that belong to no response."""

from uuid import UUID

from codexa.store.database import Connection, many
from codexa.store.queries import queries

_QUERIES = queries("about_person")


def by_payer_or_link(connection: Connection, *, form: UUID, email: str) -> list[int]:
    """Return the numbers of a form's responses whose payer, or whose link, has an address (in small letters)."""
    return [row["number"] for row in many(connection, _QUERIES["by_payer_or_link"], form=form, email=email)]


def forget_beside(connection: Connection, *, team: UUID, email: str) -> None:
    """Forget an address (in small letters) of a team's links and of mails that belong to no response."""
    for name in ("forget_links", "forget_errands"):
        connection.execute(_QUERIES[name], {"team": team, "email": email})
