"""Name: in one box, or as first and last name."""

from typing import Any, Literal

from codexa.core.definition.parts import FieldFace, PlainLabel, Question
from codexa.core.fields.composite import CompositeType
from codexa.core.fields.field_type import Family, Sampling
from codexa.core.sentences import Sentence


class NameFace(FieldFace):
    """What the browser may know of a name; the first box, or the only one, has the first `placeholder`."""

    type: Literal["name"] = "name"
    parts: Literal["one", "first_last"] = "first_last"
    placeholder: PlainLabel = ""
    placeholder_last: PlainLabel = ""


class NameField(NameFace, Question):
    """A person's name, in one box or in two; both are needed where it is in two."""

    personal: bool = True


class NameType(CompositeType[NameField]):
    """Name."""

    name = "name"
    title = "Name"
    family = Family.PEOPLE
    purpose = "A person's name, in one box or as first and last name."
    face = NameFace
    block = NameField

    def wanted(self, block: NameField) -> dict[str, bool]:
        """First and last name, or the whole."""
        return {"full": True} if block.parts == "one" else {"first": True, "last": True}

    def missing(self, part: str) -> Sentence:
        """What is missing, in words."""
        if part == "first":
            return Sentence("Enter the first name too.")
        return Sentence("Enter the last name too.") if part == "last" else Sentence("Enter the name.")

    def whole(self, parts: dict[str, str]) -> str:
        """The parts with a space between."""
        return " ".join(filter(None, map(parts.get, ("full", "first", "last"))))

    def sample(self, block: NameField, how: Sampling) -> Any:
        """The name of who fills in."""
        person = how.person
        return person.name if block.parts == "one" else {"first": person.first, "last": person.last}
