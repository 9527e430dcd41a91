"""Phone: a telephone number, kept as E.164."""

import re
from typing import Annotated, Any, Literal

import phonenumbers
from phonenumbers import ValidationResult
from pydantic import AfterValidator, StringConstraints

from codexa.core.definition.parts import FieldFace, PlainLabel, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, Medium, Region, Sampling
from codexa.core.fields.text_value import TextFieldType
from codexa.core.sentences import Sentence

# Without its country's code a number is no more than digits and what people put between them.
_AS_WRITTEN = re.compile(r"(?=(?:\D*\d){3,17}\D*$)[\d\s()/.-]{3,60}")


def _dialled(country: str) -> str:
    if country and country not in phonenumbers.SUPPORTED_REGIONS:
        raise ValueError(f'"{country}" is no country with telephone numbers; use a code such as DE')
    return country


class PhoneFace(FieldFace):
    """What the browser may know of a phone field."""

    type: Literal["phone"] = "phone"
    placeholder: PlainLabel = ""


class PhoneField(PhoneFace, Question):
    """A telephone number; one without + belongs to `country` (ISO 3166-1), or is kept as the visitor writes it."""

    personal: bool = True
    country: Annotated[str, StringConstraints(pattern=r"^([A-Z]{2})?$"), AfterValidator(_dialled)] = ""


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
        """Return the number in E.164 ("+442071838750"), or as it is written where its country is not known."""
        text = super().parse(raw, block, region)
        if text is None:
            return None
        try:
            number = phonenumbers.parse(text[:60], block.country or None)
        except phonenumbers.NumberParseException as error:
            if error.error_type == error.INVALID_COUNTRY_CODE and not block.country and _AS_WRITTEN.fullmatch(text):
                return " ".join(text.split())
            number = None
        if number is None or phonenumbers.is_possible_number_with_reason(number) != ValidationResult.IS_POSSIBLE:
            example = _shown(phonenumbers.example_number(block.country or region.country))
            raise AnswerError(
                "not_a_phone",
                Sentence("Enter a telephone number such as {example}, with + and the country's code.", example=example),
            )
        return _e164(number)

    def limits(self, block: PhoneField) -> str:
        """The form of a number."""
        return "a telephone number"

    def present(self, value: str, block: PhoneField, region: Region, medium: Medium) -> str:
        """With spaces for people, E.164 for programs; one without its country's code as it was written."""
        return _shown(phonenumbers.parse(value)) if medium is not Medium.CSV and value.startswith("+") else value

    def answer_schema(self, block: PhoneField) -> dict[str, Any]:
        """E.164, or without + as it was written."""
        return {"type": "string", "pattern": r"^(\+\d{3,17}|[^+].{2,59})$"}

    def sample(self, block: PhoneField, how: Sampling) -> str:
        """A number like the country's example."""
        example = _e164(phonenumbers.example_number(block.country or how.region.country))
        return f"{example[:-2]}{how.random.randrange(100):02}"


def _shown(number: Any) -> str:
    return str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.INTERNATIONAL))


def _e164(number: Any) -> str:
    return str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.E164))
