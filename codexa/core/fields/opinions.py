"""Rating, scale and slider: a number picked instead of typed."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import Field as Setting

from codexa.core.definition.parts import Field, FieldFace, Number, PlainLabel, Question, Unit
from codexa.core.fields.decimals import DecimalType, limit_findings, shown
from codexa.core.fields.field_type import NO_SETTINGS, Family, Medium, Region, Sampling
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.types import Digits, Kind, Type
from codexa.core.sentences import Sentence

PickedModel = TypeVar("PickedModel", bound=Field)


class PickedType(DecimalType[PickedModel], Generic[PickedModel]):
    """A field whose answer is one of evenly spaced numbers."""

    family = Family.OPINIONS
    can_be_wrong = False

    def bounds(self, block: PickedModel) -> tuple[Decimal, Decimal, Decimal]:
        """Return the least number, the greatest and the step."""
        raise NotImplementedError

    def decimals_of(self, block: PickedModel, region: Region) -> int:
        """Those of the step."""
        return Digits.of(self.bounds(block)[2]).decimals

    def value_type(self, block: PickedModel) -> Type:
        """A number of bounded digits, or blank."""
        least, most, step = self.bounds(block)
        whole = max(Digits.of(least).whole, Digits.of(most).whole)
        return Type(kind=Kind.NUMBER, may_be_blank=True, digits=Digits(whole=whole, decimals=Digits.of(step).decimals))

    def check(
        self, value: Decimal, block: PickedModel, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """One of the numbers that can be picked."""
        least, most, step = self.bounds(block)
        if not least <= value <= most or (value - least) % step:
            return Sentence("Choose from {least} to {most}.", least=shown(least, region), most=shown(most, region))
        return None

    def present(self, value: Decimal, block: PickedModel, region: Region, medium: Medium) -> str:
        """The number."""
        return text_of_number(value) if medium is Medium.CSV else shown(value, region)

    def sample(self, block: PickedModel, how: Sampling) -> str:
        """A number that can be picked, high ones more often."""
        least, most, step = self.bounds(block)
        steps = int((most - least) / step)
        return shown(least + step * max(how.random.randint(0, steps) for _ in range(2)), how.region)


class RatingFace(FieldFace):
    """What the browser may know of a rating: the picture that is repeated, and how often."""

    type: Literal["rating"] = "rating"
    icon: Literal["star", "heart", "moon", "dot"] = "star"
    count: Annotated[int, Setting(ge=2, le=12)] = 5


class RatingField(RatingFace, Question):
    """A number from 1 to `count`."""


class RatingType(PickedType[RatingField]):
    """Rating."""

    name = "rating"
    title = "Rating"
    purpose = "How good something was, in stars, hearts, moons or dots."
    face = RatingFace
    block = RatingField

    def bounds(self, block: RatingField) -> tuple[Decimal, Decimal, Decimal]:
        """From 1 to the count."""
        return Decimal(1), Decimal(block.count), Decimal(1)


class ScaleFace(FieldFace):
    """What the browser may know of a scale: its numbers and the words at its ends."""

    type: Literal["scale"] = "scale"
    least: Annotated[int, Setting(ge=0, le=1)] = 1
    most: Annotated[int, Setting(ge=2, le=10)] = 5
    least_label: PlainLabel = ""
    most_label: PlainLabel = ""


class ScaleField(ScaleFace, Question):
    """A whole number from `least` to `most`."""


class ScaleType(PickedType[ScaleField]):
    """Scale."""

    name = "scale"
    title = "Scale"
    purpose = "How much somebody agrees, on numbers with words at both ends."
    face = ScaleFace
    block = ScaleField

    def bounds(self, block: ScaleField) -> tuple[Decimal, Decimal, Decimal]:
        """From end to end."""
        return Decimal(block.least), Decimal(block.most), Decimal(1)


class SliderFace(FieldFace):
    """What the browser may know of a slider."""

    type: Literal["slider"] = "slider"
    least: Number = Decimal(0)
    most: Number = Decimal(100)
    step: Annotated[Number, Setting(gt=0)] = Decimal(1)
    unit: Unit = ""


class SliderField(SliderFace, Question):
    """A number from `least` to `most` in steps of `step`; blank until it is moved."""


class SliderType(PickedType[SliderField]):
    """Slider."""

    name = "slider"
    title = "Slider"
    purpose = "A number picked along a line."
    face = SliderFace
    block = SliderField

    def findings(self, block: SliderField) -> list[tuple[str, str, str]]:
        """Limits that no number meets."""
        if block.least == block.most:
            return [("least", "The slider has no room to move.", "Let the greatest number be more than the least.")]
        return limit_findings(block.least, block.most)

    def bounds(self, block: SliderField) -> tuple[Decimal, Decimal, Decimal]:
        """As the block says."""
        return block.least, block.most, block.step

    def present(self, value: Decimal, block: SliderField, region: Region, medium: Medium) -> str:
        """The number with its unit for people; plain for programs."""
        text = super().present(value, block, region, medium)
        return text if medium is Medium.CSV else f"{text} {block.unit}".strip()

    def sample(self, block: SliderField, how: Sampling) -> str:
        """A number that can be picked, those in the middle more often."""
        steps = int((block.most - block.least) / block.step)
        middle = sum(how.random.randint(0, steps) for _ in range(2)) // 2
        return shown(block.least + block.step * middle, how.region)
