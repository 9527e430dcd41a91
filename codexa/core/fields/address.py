"""Address: where something can be sent or visited."""

from typing import Any, Literal

from babel import Locale

from codexa.core.definition.parts import FieldFace, PlainLabel, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.composite import CompositeType
from codexa.core.fields.field_type import Family, Region, Sampling
from codexa.core.fields.sample_people import STREETS, TOWNS
from codexa.core.formula.values import Composite
from codexa.core.sentences import Sentence

_COUNTRIES = frozenset(code for code in map(str, Locale("en").territories) if len(code) == 2 and code.isalpha()) - {
    "ZZ",
    "EU",
    "UN",
}


class AddressFace(FieldFace):
    """What the browser may know of an address; without `country` all addresses are in the form's own."""

    type: Literal["address"] = "address"
    country: bool = False
    placeholder_street: PlainLabel = ""
    placeholder_postal_code: PlainLabel = ""
    placeholder_town: PlainLabel = ""


class AddressField(AddressFace, Question):
    """Street, postal code, town, and country where it is asked (ISO 3166-1, two letters)."""

    personal: bool = True


class AddressType(CompositeType[AddressField]):
    """Address."""

    name = "address"
    title = "Address"
    family = Family.PEOPLE
    purpose = "Street, postal code, town and, where it matters, country."
    face = AddressFace
    block = AddressField
    linkable = False

    def wanted(self, block: AddressField) -> dict[str, bool]:
        """The lines of an address."""
        lines = {"street": True, "extra": False, "postal_code": False, "town": True}
        return lines | {"country": True} if block.country else lines

    def missing(self, part: str) -> Sentence:
        """What is missing, in words."""
        if part == "street":
            return Sentence("Enter the street and number too.")
        return Sentence("Enter the town too.") if part == "town" else Sentence("Enter the country too.")

    def parse(self, raw: Any, block: AddressField, region: Region) -> Composite | None:
        """Return the address; a country is two letters."""
        value = super().parse(raw, block, region)
        country = value.parts.get("country") if value is not None else None
        if country is not None and country not in _COUNTRIES:
            raise AnswerError("no_country", "Choose the country from the list.")
        return value

    def whole(self, parts: dict[str, str]) -> str:
        """The lines with commas between."""
        given = parts.get
        place = " ".join(filter(None, (given("postal_code"), given("town"))))
        return ", ".join(filter(None, (given("street"), given("extra"), place, given("country"))))

    def sample(self, block: AddressField, how: Sampling) -> dict[str, str]:
        """An invented address."""
        address = {
            "street": f"{how.random.choice(STREETS)} {how.random.randint(1, 120)}",
            "postal_code": str(how.random.randint(10_000, 99_999)),
            "town": how.random.choice(TOWNS),
        }
        return address | {"country": "DE"} if block.country else address
