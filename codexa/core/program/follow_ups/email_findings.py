"""What a mail lacks: nobody to send to, an address that is none, a field that may be hidden, no subject, no words."""

from collections.abc import Collection, Iterator
from functools import lru_cache

from email_validator import EmailNotValidError, validate_email

from codexa.core.fields.email import EmailField
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.form.follow_ups import EmailFollowUp, Recipient
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.names import name_of
from codexa.core.program.places import ALWAYS, NEVER
from codexa.core.program.program import Program

# What programs for mail show; the rest is told in words.
_SHOWN_IN_MAIL = ("/", "data:image/png", "data:image/jpeg")


def email_findings(program: Program, follow_up: EmailFollowUp) -> Iterator[Finding]:
    """Yield what a mail lacks, or can't do."""
    owner = follow_up.id
    if not follow_up.recipients:
        message = "The mail goes to nobody."
        yield error("no_recipient", message, "Pick a field or type an address.", owner, "recipients")
    for at, recipient in enumerate(follow_up.recipients):
        yield from _of_recipient(program, follow_up, recipient, f"recipients.{at}")
    if follow_up.reply_to:
        yield from _of_field(program, follow_up, follow_up.reply_to, "reply_to")
    if not follow_up.subject.strip():
        yield error("no_subject", "The mail has no subject.", "Say what it is about.", owner, "subject")
    for at, each in enumerate(follow_up.paragraphs):
        if each.picture and not each.picture.startswith(_SHOWN_IN_MAIL):
            message = "Programs for mail do not show a picture of this kind."
            yield error("no_picture", message, "Take a JPEG or PNG.", owner, f"paragraphs.{at}.picture")
    if not follow_up.paragraphs and not follow_up.all_answers:
        message = "The mail says nothing."
        yield doubt("no_words", message, "Add a text, or all answers.", owner, "paragraphs")
    if follow_up.files and not any(isinstance(each.block, FileUploadField) for each in program.places.values()):
        message = "The mail would attach files, and the form has no field for any."
        yield doubt("no_files", message, "Add such a field, or switch it off.", owner, "files")


def people_findings(follow_up: EmailFollowUp, people: Collection[str]) -> Iterator[Finding]:
    """Yield who is to get the mail and is not of the team (any more)."""
    for at, recipient in enumerate(follow_up.recipients):
        if recipient.person and recipient.person not in people:
            message = "The mail goes to somebody who is not of the team any more."
            yield error("no_recipient", message, "Pick somebody else.", follow_up.id, f"recipients.{at}")


@lru_cache(maxsize=4_096)
def is_address(text: str) -> bool:
    """Say whether mail can be sent to this."""
    try:
        validate_email(text, check_deliverability=False)
    except EmailNotValidError:
        return False
    return True


def _of_recipient(program: Program, follow_up: EmailFollowUp, recipient: Recipient, setting: str) -> Iterator[Finding]:
    owner = follow_up.id
    if recipient.field:
        yield from _of_field(program, follow_up, recipient.field, f"{setting}.field")
    elif recipient.person:
        return  # whether they are of the team is known to who knows the team
    elif not recipient.address:
        message = "A recipient is empty."
        yield error("no_recipient", message, "Pick a field, type an address, or remove it.", owner, setting)
    elif not is_address(recipient.address):
        message = f"“{recipient.address}” can't receive mail."
        yield error("no_recipient", message, "Type an address such as name@example.org.", owner, setting)


def _of_field(program: Program, follow_up: EmailFollowUp, field: str, setting: str) -> Iterator[Finding]:
    place, owner = program.questions.get(field), follow_up.id
    if place is None or not isinstance(place.block, EmailField):
        message = "The e-mail field that it is sent to was removed, or is another type now."
        yield error("no_recipient", message, "Pick another field.", owner, setting)
        return
    required = place.block.required.strip().upper() == "TRUE" and place.conditions.shown is ALWAYS
    if place.conditions.shown is NEVER:
        message = f"{name_of(program, field)} is never shown: nobody would get it."
        yield error("no_recipient", message, "Pick another field.", owner, setting)
    elif not required and not follow_up.only_when.strip() and setting != "reply_to":
        message = f"{name_of(program, field)} may be blank or hidden; then this mail isn't sent."
        yield doubt("may_have_no_recipient", message, "Require the field, or say when it is sent.", owner, setting)
