"""Who may do what: the one place that says so."""

from enum import StrEnum

from codexa.services.errors import NotAllowedError
from codexa.store.sessions import SignedIn


class Right(StrEnum):
    """What can be done with a team's forms, and behind them: jobs, mail and money."""

    SEE_FORMS = "see forms"
    EDIT_FORMS = "edit forms"
    SEE_RESPONSES = "see responses"
    MARK_RESPONSES = "mark responses"
    SEE_TABLES = "see tables"
    CHANGE_RECORDS = "change records"
    EDIT_TABLES = "edit tables"
    KEEP_PEOPLE = "invite people, give roles, take people out"
    SEE_AUDIT = "see the audit log"
    GRANT_TABLES = "say who may see and change a table"
    SEE_WORKINGS = "see workings"
    REFUND = "give money back"
    CHARGE = "stop plans and charge again"
    KEEP_ACCOUNTS = "keep accounts"
    KEEP_KEYS = "keep keys"
    ANSWER_PEOPLE = "find and forget a person"


_OWNERS_ONLY = frozenset(
    {
        Right.SEE_WORKINGS, Right.REFUND, Right.CHARGE, Right.KEEP_ACCOUNTS, Right.KEEP_KEYS, Right.ANSWER_PEOPLE,
        Right.GRANT_TABLES, Right.KEEP_PEOPLE, Right.SEE_AUDIT,
    }
)  # fmt: skip
HIDDEN = "none"  # the role of whom a form is hidden from
_RIGHTS: dict[str, frozenset[Right]] = {
    "owner": frozenset(Right),
    "editor": frozenset(Right) - _OWNERS_ONLY,
    # Of which tables records are seen and changed, each table says (see tables.rights).
    "reviewer": frozenset(
        {Right.SEE_FORMS, Right.SEE_RESPONSES, Right.MARK_RESPONSES, Right.SEE_TABLES, Right.CHANGE_RECORDS}
    ),
    # A viewer changes records where a group of theirs may.
    "viewer": frozenset({Right.SEE_FORMS, Right.SEE_TABLES, Right.CHANGE_RECORDS}),
    HIDDEN: frozenset(),
}


def require(signed_in: SignedIn, right: Right) -> None:
    """Raise NotAllowedError where the person's role in the team does not have the right."""
    if right not in _RIGHTS[signed_in.role]:
        raise NotAllowedError
