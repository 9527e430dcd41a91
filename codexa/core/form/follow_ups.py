"""Follow-ups: what is done once something has happened to a response."""

from typing import Annotated, Literal

from annotated_types import Len
from pydantic import Discriminator, StringConstraints
from pydantic import Field as Setting

from codexa.core.definition.parts import (
    FormulaText,
    GroupCode,
    Identifier,
    InsertedText,
    Label,
    OptionalIdentifier,
    Part,
    VisitorLabel,
    Words,
)
from codexa.core.form.paragraphs import Paragraph
from codexa.core.formula.functions.function import Role

MAX_RECIPIENTS = 50

# What sets a follow-up off: an event of a response, or a day that hangs on it.
Moment = Literal[
    "kept", "handed in", "complete", "paid", "payment failed", "charge", "charge failed", "refunded", "moved up",
    "rebooked", "cancelled", "approved", "denied", "asked back", "handed on", "handed back", "day",
]  # fmt: skip
Address = Annotated[str, StringConstraints(max_length=254, pattern=r"^[^\x00-\x20\x7f]*$")]


class Day(Part):
    """A day that hangs on a response: so many `days` after (or, below 0, before) the date in a field, at an hour.

    `field` is a field of a date or a slot by id, or "" for the day of handing in; the hour is that of the form's time
    zone. With `hours` it is so many hours after (or before) the moment in the field instead.
    """

    field: OptionalIdentifier = ""
    hours: Annotated[int, Setting(ge=-8_784, le=8_784)] | None = None
    days: Annotated[int, Setting(ge=-1_000, le=1_000)] = 1
    at: Annotated[str, StringConstraints(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")] = "09:00"


class FollowUp(Part):
    """What is done on an event, where its condition holds and it is not switched off; `name` is for the team.

    `day` is when, where it is set off by a day.
    """

    id: Identifier
    name: Label = ""
    on: Moment = "complete"
    day: Day = Day()
    only_when: Annotated[str, FormulaText(Role.CONDITION, "follow_up")] = ""
    active: bool = True

    @property
    def for_visitor(self) -> bool:
        """Whether a visitor reads it, in the language in which the form was filled in."""
        return False


class Recipient(Part):
    """Who gets a mail where the condition holds.

    Whoever the e-mail `field` names, by id; somebody of the team, by id; or the written `address`.
    """

    role: Literal["to", "cc", "bcc"] = "to"
    field: OptionalIdentifier = ""
    person: Annotated[str, StringConstraints(pattern=r"^([0-9a-f-]{36})?$")] = ""
    address: Address = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "recipient")] = ""


class EmailFollowUp(FollowUp):
    """A mail. `reply_to` is an e-mail field by id; `all_answers` adds a table of what was answered.

    `pdf` attaches the response as PDF, `files` what visitors sent with it, as far as they fit into so many `megabytes`.
    With `entry`, a field of a slot, a date or a moment by id, a calendar entry goes along, called `entry_title`, at
    `entry_place`, and where a moment has no end so many `minutes` long; a mail about what is cancelled takes it out.
    """

    kind: Literal["email"] = "email"
    recipients: Annotated[tuple[Recipient, ...], Len(max_length=MAX_RECIPIENTS)] = ()
    from_name: VisitorLabel = ""
    reply_to: OptionalIdentifier = ""
    subject: VisitorLabel = ""
    paragraphs: tuple[Paragraph, ...] = ()
    all_answers: bool = False
    pdf: bool = False
    files: bool = False
    megabytes: Annotated[int, Setting(ge=1, le=20)] = 10
    entry: OptionalIdentifier = ""
    entry_title: VisitorLabel = ""
    entry_place: VisitorLabel = ""
    minutes: Annotated[int, Setting(ge=1, le=10_080)] = 60

    @property
    def for_visitor(self) -> bool:
        """Whether somebody gets it whom an answer names."""
        return any(each.field for each in self.recipients)


class WebhookFollowUp(FollowUp):
    """The response as JSON, sent to an address of another system."""

    kind: Literal["webhook"] = "webhook"
    address: Annotated[str, StringConstraints(pattern=r"^(https?://\S{1,2000})?$")] = ""


class RecordCell(Part):
    """What is kept in a column, by its id: a formula over all that the form knows."""

    column: Identifier
    value: Annotated[str, FormulaText(Role.VALUE, "cell")] = ""


class RecordStep(Part):
    """Records of a table that the form knows: one, or with `rows` one for each row of that kind, by its id.

    It is made, or found by the columns `found_by`, by their ids, and changed; with "either" made where none is found.
    Where it belongs to a record of a step above, `under`, its column `linked_by` names that one.
    """

    id: Identifier
    table: OptionalIdentifier = ""
    way: Literal["make", "either", "change"] = "make"
    found_by: Annotated[tuple[Identifier, ...], Len(max_length=30)] = ()
    rows: OptionalIdentifier = ""
    under: OptionalIdentifier = ""
    linked_by: OptionalIdentifier = ""
    cells: Annotated[tuple[RecordCell, ...], Len(max_length=100)] = ()


class RecordFollowUp(FollowUp):
    """What a response says, kept as records of the team's tables: all `steps` in their order, or none."""

    kind: Literal["record"] = "record"
    steps: Annotated[tuple[RecordStep, ...], Len(max_length=30)] = ()


class AccountFollowUp(FollowUp):
    """The account of a member, made once for an e-mail, and put into these `groups`, by code.

    `email` and `name` are formulas; whoever is signed in has an account already, and is put into the groups. With
    `mail` who is new gets one by which they sign in.
    """

    kind: Literal["account"] = "account"
    email: Annotated[str, FormulaText(Role.VALUE, "member")] = ""
    name_of: Annotated[str, FormulaText(Role.VALUE, "member")] = ""
    groups: Annotated[tuple[GroupCode, ...], Len(max_length=200)] = ()
    mail: bool = True

    @property
    def for_visitor(self) -> bool:
        """Whoever has the account reads the mail."""
        return True


class Decider(Part):
    """Who decides, where the condition holds.

    Somebody of the team by id, whoever is in a group by its code, or whoever of the team has the e-mail address that a
    formula gives.
    """

    person: Annotated[str, StringConstraints(pattern=r"^([0-9a-f-]{36})?$")] = ""
    group: Annotated[str, StringConstraints(max_length=60)] = ""
    address: Annotated[str, FormulaText(Role.VALUE, "decider")] = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "recipient")] = ""


class ApprovalStep(Part):
    """A step of an approval, where its condition holds: any of its `deciders` decides, or `every` one has to approve.

    It is to be decided within `hours`; they are reminded `remind` hours before that, and after it who stands in may
    decide too.
    """

    id: Identifier
    name: Label = ""
    only_when: Annotated[str, FormulaText(Role.CONDITION, "follow_up")] = ""
    deciders: Annotated[tuple[Decider, ...], Len(max_length=30)] = ()
    every: bool = False
    hours: Annotated[int, Setting(ge=1, le=8_784)] | None = None
    remind: Annotated[int, Setting(ge=1, le=8_784)] | None = None
    stand_in: Decider = Decider()


class ApprovalFollowUp(FollowUp):
    """Somebody decides about the response, step by step; `subject` says in one line what about."""

    kind: Literal["approval"] = "approval"
    subject: Annotated[Label, InsertedText()] = ""
    steps: Annotated[tuple[ApprovalStep, ...], Len(max_length=30)] = ()


class TaskFollowUp(FollowUp):
    """Something to do for whoever is of the team, or for all of a group; within so many `days`.

    `who` names them as it does who decides; `words` say what to do.
    """

    kind: Literal["task"] = "task"
    words: Annotated[Label, InsertedText()] = ""
    who: Decider = Decider()
    days: Annotated[int, Setting(ge=0, le=1_000)] | None = None


class CalendarChoice(Part):
    """A calendar of the team, by id, where the condition holds."""

    calendar: Annotated[str, StringConstraints(pattern=r"^([0-9a-f-]{36})?$")] = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "recipient")] = ""


class CalendarFollowUp(FollowUp):
    """An entry in a calendar: of `calendars` the first whose condition holds.

    `entry` is a field of a slot, a date or a moment by id; where a moment has no end it is so many `minutes` long. The
    e-mail field `guest`, by id, names who is invited. What changes or cancels the booking changes the entry.
    """

    kind: Literal["calendar"] = "calendar"
    calendars: Annotated[tuple[CalendarChoice, ...], Len(max_length=30)] = ()
    entry: OptionalIdentifier = ""
    entry_title: Annotated[Label, InsertedText()] = ""
    entry_place: Annotated[Label, InsertedText()] = ""
    text: Annotated[Words, InsertedText()] = ""
    guest: OptionalIdentifier = ""
    minutes: Annotated[int, Setting(ge=1, le=10_080)] = 60


AnyFollowUp = Annotated[
    EmailFollowUp
    | WebhookFollowUp
    | RecordFollowUp
    | AccountFollowUp
    | ApprovalFollowUp
    | TaskFollowUp
    | CalendarFollowUp,
    Discriminator("kind"),
]
