"""The table of a team's members: whoever fills in and has an account is a record of it."""

import unicodedata
from collections.abc import Iterator, Mapping
from typing import Any

from email_validator import EmailNotValidError, validate_email

from codexa.core.errors import AnswerError, Problem
from codexa.core.sentences import Sentence
from codexa.core.tables.table import Table

EMAIL, NAME, GROUPS = "email", "name", "groups"
_STAY = {EMAIL: "email", NAME: "short_text", GROUPS: "several_choices"}
_MOST_EMAIL = 254  # characters (RFC 5321, 4.5.3.1.3)
_NOT_AN_EMAIL = Sentence("Enter an e-mail address such as name@example.org; this one can't receive mail.")
_MIXED = Sentence("This address mixes letters of several alphabets that look alike. Type it as it is.")


def members_definition(groups: Mapping[str, str], before: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """Return the definition of a table of members as JSON, with the team's groups, names by code, to choose from.

    Further columns, and all that was set `before`, stay.
    """
    known = before or {"name": "Members", "columns": [], "once": [EMAIL], "named_by": NAME}
    own = {each["id"]: each for each in known["columns"]}
    columns = [
        own.get(NAME, {"id": NAME, "type": "short_text", "key": NAME, "label": "Name", "required": "TRUE"}),
        own.get(EMAIL, {"id": EMAIL, "type": "email", "key": EMAIL, "label": "E-mail", "required": "TRUE"}),
    ]
    if groups:
        options = [{"id": f"g{at}", "label": name, "code": code} for at, (code, name) in enumerate(groups.items())]
        column = own.get(GROUPS, {"id": GROUPS, "type": "several_choices", "key": GROUPS, "label": "Groups"})
        columns.append({**column, "options": options})
    fixed = {each["id"]: each for each in columns}
    kept = [fixed.pop(each["id"], each) for each in known["columns"] if each["id"] != GROUPS or groups]
    return {**known, "columns": [*kept, *fixed.values()], "once": list({EMAIL: None, **dict.fromkeys(known["once"])})}


def members_problems(before: Table, after: Table) -> Iterator[Problem]:
    """Yield what would keep members from being known: by what they sign in, how they are called, and their groups."""
    for at, kind in _STAY.items():
        column = after.columns.get(at)
        if at in before.columns and (column is None or column.type != kind):
            yield Problem(path="columns", message=f"members have a column {at}; it stays as it is")
    if EMAIL not in after.definition.once:
        yield Problem(path="once", message="no two members have the same e-mail; let that stand")
    column, known = after.columns.get(GROUPS), before.columns.get(GROUPS)
    if column is not None and known is not None and getattr(column, "options", ()) != getattr(known, "options", ()):
        yield Problem(path="columns", message="groups are made and named in Team; change them there")


def member_address(text: str) -> str:
    """Return an address as a member is known by it: without outer spaces, compatibility letters made plain.

    Raises AnswerError where it can't receive mail, or could be taken for another: letters of several alphabets in one
    part (Unicode UTS 39, mixed scripts).
    """
    plain = unicodedata.normalize("NFKC", text.strip()[: _MOST_EMAIL + 1])
    try:
        address = validate_email(plain, check_deliverability=False).normalized
    except EmailNotValidError:
        raise AnswerError("not_an_email", _NOT_AN_EMAIL) from None
    if any(len(_alphabets(part)) > 1 for part in address.replace("@", ".").split(".")):
        raise AnswerError("mixed_letters", _MIXED)
    return address


def _alphabets(part: str) -> set[str]:
    # The first word of a letter's name is that of its script, for all that have look-alikes.
    return {unicodedata.name(each, "").split(" ")[0] for each in part if each.isalpha()} - {"MODIFIER", "FEMININE"}


def compared_email(address: str) -> str:
    """Return an address as it is compared with those of other members."""
    return unicodedata.normalize("NFKC", " ".join(address.split())).casefold()
