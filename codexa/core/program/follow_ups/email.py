"""A mail: to whom, and its words, in pieces that are laid out when it is sent."""

from collections.abc import Iterator
from typing import Any

from codexa.core.definition.brand import Brand
from codexa.core.definition.rich_text import sanitised
from codexa.core.fields.email import EmailField
from codexa.core.form.follow_ups import EmailFollowUp, Recipient
from codexa.core.program.charts import bars_of
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding
from codexa.core.program.follow_ups.calendar_entry import calendar_entry, entry_findings
from codexa.core.program.follow_ups.email_findings import email_findings, is_address
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.program import Program
from codexa.core.program.response_document import response_document
from codexa.core.program.told_answers import told_answers

_MOST_SUBJECT = 200  # characters
_MEGABYTE = 1_000_000


class EmailKind(FollowUpKind[EmailFollowUp]):
    """E-mail."""

    kind_name = "email"
    title = "E-mail"

    def content(self, state: State, follow_up: EmailFollowUp) -> dict[str, Any] | None:
        """Recipients by role, subject, the pieces of the body, what is attached; nothing where nobody would get it."""
        addresses = _addresses(state, follow_up)
        if not any(addresses.values()):
            return None
        owner = follow_up.id
        attached, too_large = _files(state, follow_up)
        told = [{"left_out": too_large}] if too_large else []
        return {
            **addresses,
            "reply_to": _field_value(state, follow_up.reply_to),
            "from_name": _one_line(state.text(owner, "from_name", follow_up.from_name)),
            "subject": _one_line(state.text(owner, "subject", follow_up.subject))[:_MOST_SUBJECT],
            "locale": state.program.form.locale,
            "brand": _look(state.program.form.brand),
            "pieces": [*_paragraphs(state, follow_up), *(_all_answers(state) if follow_up.all_answers else []), *told],
            "files": attached,
            "pdf": response_document(state) if follow_up.pdf else None,
            "entry": calendar_entry(state, follow_up),
        }

    def told(self, content: dict[str, Any]) -> str:
        """To whom, the subject, and what is attached."""
        to = ", ".join([*content["to"], *content["cc"], *content["bcc"]])
        attached = [*(["the response as PDF"] if content["pdf"] else []), *(each["name"] for each in content["files"])]
        return f"mail to {to}: {content['subject']}" + (f", with {', '.join(attached)}" if attached else "")

    def findings(self, program: Program, follow_up: EmailFollowUp) -> Iterator[Finding]:
        """What it lacks, or can't do."""
        yield from email_findings(program, follow_up)
        yield from entry_findings(program, follow_up)


def _addresses(state: State, follow_up: EmailFollowUp) -> dict[str, list[str]]:
    """Return the recipients by role, nobody twice."""
    addresses: dict[str, list[str]] = {"to": [], "cc": [], "bcc": []}
    seen: set[str] = set()
    for at, recipient in enumerate(follow_up.recipients):
        address = _address(state, recipient)
        if address and address.casefold() not in seen and holds(state, follow_up.id, f"recipients.{at}.when"):
            seen.add(address.casefold())
            addresses[recipient.role].append(address)
    return addresses


def _address(state: State, recipient: Recipient) -> str:
    if recipient.field:
        return _field_value(state, recipient.field)
    if recipient.person:
        return state.context.people.get(recipient.person, "")
    return recipient.address if is_address(recipient.address) else ""


def _field_value(state: State, field: str) -> str:
    place = state.program.questions.get(field)
    if place is None or not isinstance(place.block, EmailField):
        return ""
    value = state.value(place)
    return value if isinstance(value, str) else ""


def _one_line(text: str) -> str:
    # Line breaks would begin another header (RFC 5322, 2.2).
    return " ".join(text.split())


def _look(brand: Brand) -> dict[str, str]:
    """Return of a brand what a mail is laid out by."""
    serif = brand.typeface in ("source_serif", "lora", "bitter", "fraunces")
    return {
        "accent": brand.accent,
        "ground": brand.ground,
        "paper": brand.paper,
        "ink": brand.ink,
        "letters": "serif" if serif else "sans-serif",
        "logo": brand.logo,
        "logo_alternative": brand.logo_alternative,
    }


def _paragraphs(state: State, follow_up: EmailFollowUp) -> Iterator[dict[str, Any]]:
    for at, paragraph in enumerate(follow_up.paragraphs):
        if not state.paragraph_shown(follow_up.id, at):
            continue
        if paragraph.chart:
            bars = bars_of(state, paragraph.chart, paragraph.chart_look)
            yield {"bars": [bar.model_dump() for bar in bars]}
        elif paragraph.picture:
            yield {"picture": paragraph.picture, "alternative": paragraph.alternative}
        elif paragraph.text.strip():
            text = state.text(follow_up.id, f"paragraphs.{at}.text", paragraph.text)
            # What was written was sanitised when it was read.
            yield {"html": paragraph.text if text == paragraph.text else sanitised(text)}


def _all_answers(state: State) -> list[dict[str, Any]]:
    rows = [[each.label, each.text] for page in state.once(told_answers) for each in page.answers]
    return [{"answers": rows}] if rows else []


def _files(state: State, follow_up: EmailFollowUp) -> tuple[list[dict[str, Any]], list[str]]:
    """Return the files that go along, and the names of those that don't fit into the mail any more."""
    if not follow_up.files:
        return [], []
    attached, too_large, room = [], [], follow_up.megabytes * _MEGABYTE
    for file in [file for page in state.once(told_answers) for each in page.answers for file in each.files]:
        if file["size"] <= room:
            room -= file["size"]
            attached.append(file)
        else:
            too_large.append(file["name"])
    return attached, too_large
