"""E-mail: an address that mail can be sent to, judged by its form."""

from typing import Any, Literal

from email_validator import EmailNotValidError, validate_email

from codexa.core.definition.parts import FieldFace, PlainLabel, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, Region, Sampling
from codexa.core.fields.text_value import TextFieldType


class EmailFace(FieldFace):
    """What the browser may know of an e-mail field."""

    type: Literal["email"] = "email"
    placeholder: PlainLabel = ""


_MOST = 254  # characters (RFC 5321, 4.5.3.1.3); one more is refused, however many follow


class EmailField(EmailFace, Question):
    """One e-mail address (RFC 5321, internationalised by RFC 6531)."""

    personal: bool = True


class EmailType(TextFieldType[EmailField]):
    """E-mail."""

    name = "email"
    title = "E-mail"
    family = Family.PEOPLE
    purpose = "An e-mail address, checked for its form."
    face = EmailFace
    block = EmailField
    can_be_wrong = True

    def parse(self, raw: Any, block: EmailField, region: Region) -> str | None:
        """Return the address with its domain in small letters."""
        text = super().parse(raw, block, region)
        if text is None:
            return None
        try:
            return validate_email(text[: _MOST + 1], check_deliverability=False).normalized
        except EmailNotValidError:
            raise AnswerError(
                "not_an_email", "Enter an e-mail address such as name@example.org; this one can't receive mail."
            ) from None

    def limits(self, block: EmailField) -> str:
        """The form of an address."""
        return "an e-mail address"

    def answer_schema(self, block: EmailField) -> dict[str, Any]:
        """A string in the form of an address."""
        return {"type": "string", "format": "email"}

    def sample(self, block: EmailField, how: Sampling) -> str:
        """The address of who fills in."""
        return how.person.email
