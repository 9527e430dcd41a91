"""Who may fill in a form and when. It is the form's, not an edition's: what is set holds at once."""

import datetime
from collections.abc import Collection
from typing import Annotated, Literal
from zoneinfo import ZoneInfo

from annotated_types import Len
from pydantic import AfterValidator, model_validator
from pydantic import Field as Setting

from codexa.core.definition.parts import GroupCode, OptionalIdentifier, Part, Question, Words
from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.form import Form

_MOST = 100_000_000
_MOST_KEPT_DAYS = 365
# Which of two equal times on a clock that goes back is meant: the form opens with the first and closes with the last.
_FIRST, _LAST = 0, 1

Standing = Literal["open", "offline", "early", "over"]
Who = Literal["anyone", "members", "groups", "team"]


def _local(text: str) -> str:
    if not text:
        return text
    try:
        moment = datetime.datetime.fromisoformat(text)
    except ValueError:
        moment = None
    if moment is None or moment.tzinfo is not None or "T" not in text:
        raise ValueError(f'"{text}" is no date and time; write one such as 2026-05-01T09:00')
    return moment.isoformat(timespec="seconds")


# A moment as clocks show it where the form is at home, or "".
LocalMoment = Annotated[str, AfterValidator(_local)]


class Access(Part):
    """Whether the form can be filled in: while it is `online`, from `opens` to `closes` (a moment that is not in it).

    At most `most` responses are taken in all; at most `most_each` with the same answer to the field `each`, by id.
    It is for `who`: anyone, whoever is signed in at the team (members, and its own people), those of some `groups`, by
    code, or its own people. With `once` whoever is signed in responds once; with `own` members find their responses
    again on their own page, and there may see those of `others`: of all, or of whoever is in one of their groups.
    With `kept_days` visitors may go on later: what they have entered so far is kept for so long after they last did.
    What visitors read instead of the form is `offline`, `early`, `over` and `full`; "" stands for the usual words.
    """

    online: bool = True
    opens: LocalMoment = ""
    closes: LocalMoment = ""
    most: Annotated[int, Setting(ge=1, le=_MOST)] | None = None
    most_each: Annotated[int, Setting(ge=1, le=_MOST)] | None = None
    each: OptionalIdentifier = ""
    kept_days: Annotated[int, Setting(ge=1, le=_MOST_KEPT_DAYS)] | None = None
    who: Who = "anyone"
    groups: Annotated[tuple[GroupCode, ...], Len(max_length=200)] = ()
    once: bool = False
    own: bool = False
    others: Literal["none", "groups", "all"] = "none"
    offline: Words = ""
    early: Words = ""
    over: Words = ""
    full: Words = ""

    @model_validator(mode="after")
    def _opens_before_it_closes(self) -> "Access":
        if self.opens and self.closes and self.opens >= self.closes:
            raise ValueError(f"it closes at {self.closes}, which is not after it opens, at {self.opens}; set one anew")
        return self

    @model_validator(mode="after")
    def _person_is_known(self) -> "Access":
        if (self.most_each is None) != (not self.each):
            raise ValueError("a limit for each person needs a number, and the field that tells who it is")
        return self

    @model_validator(mode="after")
    def _visitors_are_named(self) -> "Access":
        if self.who == "groups" and not self.groups:
            raise ValueError("it is for groups, and none is chosen; choose one, or let others fill it in")
        if self.once and self.who == "anyone":
            raise ValueError("once each needs to know who it is; let members, groups or the team fill it in")
        return self


def admits(access: Access, *, member: bool, person: bool, groups: Collection[str]) -> bool:
    """Say whether a form is for a visitor: a member or a person of the team, or neither, in these groups."""
    match access.who:
        case "anyone":
            return True
        case "members":
            return member or person
        case "groups":
            return (member or person) and bool(set(access.groups) & set(groups))
        case "team":
            return person


def opening(access: Access, zone: str) -> datetime.datetime | None:
    """Return the moment from which the form can be filled in, aware; None for always."""
    return _moment(access.opens, zone, _FIRST) if access.opens else None


def closing(access: Access, zone: str) -> datetime.datetime | None:
    """Return the moment from which it no longer can, aware; None for never."""
    return _moment(access.closes, zone, _LAST) if access.closes else None


def moment_in(text: str, zone: str) -> datetime.datetime:
    """Return the moment that clocks in a time zone show, the last where there are two, aware.

    Raises DefinitionError where it is none, or clocks are put forward over it.
    """
    try:
        moment = _local(text)
    except ValueError as error:
        raise DefinitionError([Problem(path="until", message=str(error))]) from None
    if not _exists(moment, zone):
        raise DefinitionError([Problem(path="until", message=_skipped(moment, zone))])
    return _moment(moment, zone, _LAST)


def standing(access: Access, zone: str, now: datetime.datetime) -> Standing:
    """Say whether a form can be filled in at an aware moment; whether it is full only the responses can tell."""
    if not access.online:
        return "offline"
    opens, closes = opening(access, zone), closing(access, zone)
    if closes is not None and now >= closes:
        return "over"
    return "early" if opens is not None and now < opens else "open"


def require_fitting(access: Access, form: Form) -> None:
    """Raise DefinitionError where it does not fit the form: a time that clocks pass over, a field that is none."""
    problems = [
        Problem(path=name, message=_skipped(moment, form.time_zone))
        for name, moment in (("opens", access.opens), ("closes", access.closes))
        if moment and not _exists(moment, form.time_zone)
    ]
    fields = {block.id for block, kind in form.blocks_and_kinds() if kind is None and isinstance(block, Question)}
    if access.each and access.each not in fields:
        problems.append(Problem(path="each", message="this field is gone, or stands in rows; pick another"))
    if problems:
        raise DefinitionError(problems)


def _moment(text: str, zone: str, which: int) -> datetime.datetime:
    local = datetime.datetime.fromisoformat(text).replace(tzinfo=ZoneInfo(zone), fold=which)
    # Of two equal times in one zone Python compares none with another zone's (PEP 495); in UTC there are no two.
    return local.astimezone(datetime.UTC)


def _exists(text: str, zone: str) -> bool:
    back = _moment(text, zone, _FIRST).astimezone(ZoneInfo(zone))
    return back.replace(tzinfo=None) == datetime.datetime.fromisoformat(text)


def _skipped(text: str, zone: str) -> str:
    return f"{text.replace('T', ' ')} does not exist in {zone}: the clocks are put forward over it; take another time"
