"""Phone: a telephone number, kept as E.164."""

from typing import Any, Literal

import phonenumbers
from phonenumbers import ValidationResult

from codexa.core.definition.parts import FieldFace, Label, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, Medium, Region, Sampling
from codexa.core.fields.text_value import TextFieldType


class PhoneFace(FieldFace):
    """What the browser may know of a phone field."""

    type: Literal["phone"] = "phone"
    placeholder: Label = ""


class PhoneField(PhoneFace, Question):
    """A telephone number; one without + belongs to the country of the form's time zone or language."""


class PhoneType(TextFieldType[PhoneField]):
    """Phone."""

    name = "phone"
    title = "Phone"
    family = Family.PEOPLE
    purpose = "A telephone number, checked for its country's form."
    face = PhoneFace
    block = PhoneField
    can_be_wrong = True

    def parse(self, raw: Any, block: PhoneField, region: Region) -> str | None:
        """Return the number in E.164 ("+442071838750")."""
        text = super().parse(raw, block, region)
        if text is None:
            return None
        try:
            number = phonenumbers.parse(text[:60], region.country)
        except phonenumbers.NumberParseException:
            number = None
        if number is None or phonenumbers.is_possible_number_with_reason(number) != ValidationResult.IS_POSSIBLE:
            example = _shown(phonenumbers.example_number(region.country))
            raise AnswerError(
                "not_a_phone", f"Enter a telephone number such as {example}, with + and the country's code."
            )
        return _e164(number)

    def limits(self, block: PhoneField) -> str:
        """The form of a number."""
        return "a telephone number"

    def present(self, value: str, block: PhoneField, region: Region, medium: Medium) -> str:
        """With spaces for people, E.164 for programs."""
        return value if medium is Medium.CSV else _shown(phonenumbers.parse(value))

    def answer_schema(self, block: PhoneField) -> dict[str, Any]:
        """E.164."""
        return {"type": "string", "pattern": r"^\+\d{3,17}$"}

    def sample(self, block: PhoneField, how: Sampling) -> str:
        """A number like the country's example."""
        example = _e164(phonenumbers.example_number(how.region.country))
        return f"{example[:-2]}{how.random.randrange(100):02}"


def _shown(number: Any) -> str:
    return str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.INTERNATIONAL))


def _e164(number: Any) -> str:
    return str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.E164))
