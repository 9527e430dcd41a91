"""Signature: drawn by hand, or typed by who can't draw."""

from typing import Any, Literal

from codexa.core.definition.parts import FieldFace, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, FieldType, Medium, Region, Sampling
from codexa.core.fields.text_value import characters
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import Composite
from codexa.core.sentences import Sentence

WIDTH, HEIGHT = 600, 200  # the box that strokes are drawn in
_MOST_STROKES, _MOST_NUMBERS, _MOST_NAME = 200, 8_000, 200


class SignatureFace(FieldFace):
    """What the browser may know of a signature."""

    type: Literal["signature"] = "signature"


class SignatureField(SignatureFace, Question):
    """Strokes in a box of 600 by 200, or a typed name; in formulas the name, or "drawn"."""

    personal: bool = True


class SignatureType(FieldType[SignatureField]):
    """Signature."""

    name = "signature"
    title = "Signature"
    family = Family.PEOPLE
    purpose = "A signature, drawn by mouse or finger, or typed."
    face = SignatureFace
    block = SignatureField
    linkable = False

    def value_type(self, block: SignatureField) -> Type:
        """Text, or blank."""
        return Type(kind=Kind.TEXT, may_be_blank=True)

    def parse(self, raw: Any, block: SignatureField, region: Region) -> Composite | None:
        """Return the signature of {"typed": text}, {"strokes": [[x, y, x, y …] …]} or plain text."""
        if isinstance(raw, str):
            raw = {"typed": raw}
        match raw:
            case {"typed": str(name), **rest} if not rest:
                name = name.replace("\x00", "").strip()
                if (length := characters(name)) > _MOST_NAME:
                    raise AnswerError(
                        "too_long",
                        Sentence("Enter at most {most} characters; these are {count}.", most=_MOST_NAME, count=length),
                    )
                return Composite(name, {"typed": name}) if name else None
            case {"strokes": list(strokes), **rest} if not rest and _are_strokes(strokes):
                path = " ".join("M" + " ".join(map(str, stroke)) for stroke in strokes)
                return Composite("drawn", {"path": path}) if strokes else None
        raise AnswerError("not_a_signature", "Sign in the box, or type your name.")

    def present(self, value: Composite, block: SignatureField, region: Region, medium: Medium) -> str:
        """The typed name, or that it is drawn."""
        return str(value)

    def dump(self, value: Composite) -> dict[str, str]:
        """The typed name or the strokes, as a path of SVG."""
        return dict(value.parts)

    def load(self, stored: dict[str, str], block: SignatureField) -> Composite:
        """The signature."""
        return Composite(stored.get("typed", "drawn"), stored)

    def enter(self, value: Composite, block: SignatureField, region: Region) -> dict[str, str]:
        """The typed name."""
        return {"typed": str(value)}

    def answer_schema(self, block: SignatureField) -> dict[str, Any]:
        """A name or a path."""
        return {"type": "object", "properties": {"typed": {"type": "string"}, "path": {"type": "string"}}}

    def sample(self, block: SignatureField, how: Sampling) -> dict[str, str]:
        """The typed name of who fills in."""
        return {"typed": how.person.name}


def _are_strokes(strokes: list[Any]) -> bool:
    numbers = 0
    for stroke in strokes:
        if not isinstance(stroke, list) or len(stroke) < 2 or len(stroke) % 2:
            return False
        numbers += len(stroke)
        limits = zip(stroke, [WIDTH, HEIGHT] * (len(stroke) // 2), strict=True)
        if not all(type(number) is int and 0 <= number <= most for number, most in limits):
            return False
    return len(strokes) <= _MOST_STROKES and numbers <= _MOST_NUMBERS
