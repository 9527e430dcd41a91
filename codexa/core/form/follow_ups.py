"""Follow-ups: what is done once something has happened to a response."""

from typing import Annotated, Literal

from annotated_types import Len
from pydantic import Discriminator, StringConstraints

from codexa.core.definition.parts import FormulaText, Identifier, InsertedText, Label, Part
from codexa.core.form.paragraphs import Paragraph
from codexa.core.formula.functions.function import Role

MAX_RECIPIENTS = 50

# The event of a response that sets a follow-up off.
Moment = Literal["handed in", "complete"]
FieldId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{0,32}$")]
Address = Annotated[str, StringConstraints(max_length=254, pattern=r"^[^\x00-\x20\x7f]*$")]


class FollowUp(Part):
    """What is done on an event, where its condition holds and it is not switched off; `name` is for the team."""

    id: Identifier
    name: Label = ""
    on: Moment = "complete"
    only_when: Annotated[str, FormulaText(Role.CONDITION, "follow_up")] = ""
    active: bool = True


class Recipient(Part):
    """Who gets a mail where the condition holds: whoever the e-mail `field` names, by id, or the written `address`."""

    role: Literal["to", "cc", "bcc"] = "to"
    field: FieldId = ""
    address: Address = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "recipient")] = ""


class EmailFollowUp(FollowUp):
    """A mail. `reply_to` is an e-mail field by id; `all_answers` adds a table of what was answered."""

    kind: Literal["email"] = "email"
    recipients: Annotated[tuple[Recipient, ...], Len(max_length=MAX_RECIPIENTS)] = ()
    from_name: Annotated[Label, InsertedText()] = ""
    reply_to: FieldId = ""
    subject: Annotated[Label, InsertedText()] = ""
    paragraphs: tuple[Paragraph, ...] = ()
    all_answers: bool = False


class WebhookFollowUp(FollowUp):
    """The response as JSON, sent to an address of another system."""

    kind: Literal["webhook"] = "webhook"
    address: Annotated[str, StringConstraints(pattern=r"^(https?://\S{1,2000})?$")] = ""


AnyFollowUp = Annotated[EmailFollowUp | WebhookFollowUp, Discriminator("kind")]
