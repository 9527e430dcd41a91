"""A mail: to whom, and its words, in pieces that are laid out when it is sent."""

from collections.abc import Iterator
from typing import Any

from email_validator import EmailNotValidError, validate_email

from codexa.core.definition.rich_text import sanitised
from codexa.core.fields import type_of
from codexa.core.fields.email import EmailField
from codexa.core.form.follow_ups import EmailFollowUp, Recipient
from codexa.core.formula.values import Failed
from codexa.core.program.charts import bars_of
from codexa.core.program.evaluate import Row, State
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.names import name_of
from codexa.core.program.places import ALWAYS, NEVER, Place, RepeatPlace
from codexa.core.program.program import Program

_MOST_SUBJECT = 200  # characters


class EmailKind(FollowUpKind[EmailFollowUp]):
    """E-mail."""

    kind_name = "email"
    title = "E-mail"

    def content(self, state: State, follow_up: EmailFollowUp) -> dict[str, Any] | None:
        """Recipients by role, subject, and the pieces of the body; nothing where nobody would get it."""
        addresses: dict[str, list[str]] = {"to": [], "cc": [], "bcc": []}
        seen: set[str] = set()
        for at, recipient in enumerate(follow_up.recipients):
            address = _address(state, recipient)
            if address and address.casefold() not in seen and holds(state, follow_up.id, f"recipients.{at}.when"):
                seen.add(address.casefold())
                addresses[recipient.role].append(address)
        if not seen:
            return None
        owner = follow_up.id
        return {
            **addresses,
            "reply_to": _field_value(state, follow_up.reply_to),
            "from_name": _one_line(state.text(owner, "from_name", follow_up.from_name)),
            "subject": _one_line(state.text(owner, "subject", follow_up.subject))[:_MOST_SUBJECT],
            "accent": state.program.form.brand.accent,
            "pieces": [*_paragraphs(state, follow_up), *(_all_answers(state) if follow_up.all_answers else [])],
        }

    def told(self, content: dict[str, Any]) -> str:
        """To whom, and the subject."""
        to = ", ".join([*content["to"], *content["cc"], *content["bcc"]])
        return f"mail to {to}: {content['subject']}"

    def findings(self, program: Program, follow_up: EmailFollowUp) -> Iterator[Finding]:
        """Nobody to send to, an address that is none, a field that is gone or may be hidden, no subject, no words."""
        if not follow_up.recipients:
            message = "The mail goes to nobody."
            yield error("no_recipient", message, "Pick a field or type an address.", follow_up.id, "recipients")
        for at, recipient in enumerate(follow_up.recipients):
            yield from _recipient_findings(program, follow_up, recipient, f"recipients.{at}")
        if follow_up.reply_to:
            yield from _field_findings(program, follow_up.id, follow_up.reply_to, "reply_to")
        if not follow_up.subject.strip():
            message = "The mail has no subject."
            yield error("no_subject", message, "Say what it is about.", follow_up.id, "subject")
        if any(each.picture for each in follow_up.paragraphs):
            message = "A picture does not go along in a mail."
            yield error("no_picture", message, "Take the picture out.", follow_up.id, "paragraphs")
        if not follow_up.paragraphs and not follow_up.all_answers:
            message = "The mail says nothing."
            yield doubt("no_words", message, "Add a text, or all answers.", follow_up.id, "paragraphs")


def _recipient_findings(
    program: Program, follow_up: EmailFollowUp, recipient: Recipient, setting: str
) -> Iterator[Finding]:
    if recipient.field:
        yield from _field_findings(program, follow_up.id, recipient.field, f"{setting}.field")
    elif not recipient.address:
        message = "A recipient is empty."
        yield error("no_recipient", message, "Pick a field, type an address, or remove it.", follow_up.id, setting)
    elif not _is_address(recipient.address):
        message = f"“{recipient.address}” can't receive mail."
        yield error("no_recipient", message, "Type an address such as name@example.org.", follow_up.id, setting)


def _field_findings(program: Program, owner: str, field: str, setting: str) -> Iterator[Finding]:
    place = program.questions.get(field)
    if place is None or not isinstance(place.block, EmailField):
        message = "The e-mail field that it is sent to was removed, or is another type now."
        yield error("no_recipient", message, "Pick another field.", owner, setting)
        return
    follow_up = next(each for each in program.form.follow_ups if each.id == owner)
    required = place.block.required.strip().upper() == "TRUE" and place.conditions.shown is ALWAYS
    if place.conditions.shown is NEVER:
        message = f"{name_of(program, field)} is never shown: nobody would get it."
        yield error("no_recipient", message, "Pick another field.", owner, setting)
    elif not required and not follow_up.only_when.strip() and setting != "reply_to":
        message = f"{name_of(program, field)} may be blank or hidden; then this mail isn't sent."
        yield doubt("may_have_no_recipient", message, "Require the field, or say when it is sent.", owner, setting)


def _is_address(text: str) -> bool:
    try:
        validate_email(text, check_deliverability=False)
    except EmailNotValidError:
        return False
    return True


def _address(state: State, recipient: Recipient) -> str:
    if recipient.field:
        return _field_value(state, recipient.field)
    return recipient.address if _is_address(recipient.address) else ""


def _field_value(state: State, field: str) -> str:
    place = state.program.questions.get(field)
    if place is None or not isinstance(place.block, EmailField):
        return ""
    value = state.value(place)
    return value if isinstance(value, str) else ""


def _one_line(text: str) -> str:
    # Line breaks would begin another header (RFC 5322, 2.2).
    return " ".join(text.split())


def _paragraphs(state: State, follow_up: EmailFollowUp) -> Iterator[dict[str, Any]]:
    for at, paragraph in enumerate(follow_up.paragraphs):
        if not state.paragraph_shown(follow_up.id, at):
            continue
        if paragraph.chart:
            bars = bars_of(state, paragraph.chart, paragraph.chart_look)
            yield {"bars": [bar.model_dump() for bar in bars]}
        elif paragraph.text.strip():
            yield {"html": sanitised(state.text(follow_up.id, f"paragraphs.{at}.text", paragraph.text))}


def _all_answers(state: State) -> list[dict[str, Any]]:
    rows = [row for place in state.program.top_places for row in _answer_rows(state, place)]
    return [{"answers": rows}] if rows else []


def _answer_rows(state: State, place: Place) -> Iterator[list[str]]:
    """Yield what visitors saw with a value: label and text; of a repeat each row's."""
    if not type_of(place.block).visible or not state.shown(place):
        return
    label = state.text(place.block.id, "label", getattr(place.block, "label", ""))
    if isinstance(place, RepeatPlace):
        for index, row in enumerate(state.rows(place), 1):
            kind = state.kind_of(place, row)
            values = [f"{name}: {text}" for inner in kind.places for name, text in _row_value(state, inner, row)]
            yield [f"{label or kind.kind.label} {index}".strip(), "; ".join(values)]
    elif place.field_type is not None and not isinstance(state.value(place), Failed):
        text = state.presented(place)
        if text:
            yield [label, text]


def _row_value(state: State, place: Place, row: Row) -> Iterator[tuple[str, str]]:
    text = state.presented(place, row) if state.shown(place, row) and type_of(place.block).visible else None
    if text:
        yield state.text(place.block.id, "label", getattr(place.block, "label", ""), row), text
