"""Several choices: any number of the options."""

import re
from collections.abc import Collection, Mapping
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field as Setting

from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, Facet, Family, Medium, Region, Sampling
from codexa.core.fields.options import OTHER, Optioned, Options, OptionsFace, OptionsType, find_spoken
from codexa.core.formula.types import NUMBER, Kind, Type
from codexa.core.formula.values import Choices
from codexa.core.sentences import Sentence

Picks = Annotated[int, Setting(ge=1, le=500)]


class SeveralChoicesFace(OptionsFace):
    """What the browser may know of several choices."""

    type: Literal["several_choices"] = "several_choices"
    arrangement: Literal["row", "column"] = "column"


class SeveralChoicesField(SeveralChoicesFace, Optioned):
    """Any of the options, from `minimum` to `maximum` of them."""

    options: Options = ()

    minimum: Picks | None = None
    maximum: Picks | None = None


class SeveralChoicesType(OptionsType[SeveralChoicesField]):
    """Several choices."""

    name = "several_choices"
    title = "Several choices"
    family = Family.CHOICES
    purpose = "As many of the options as apply; in a calculation their numbers add up."
    face = SeveralChoicesFace
    block = SeveralChoicesField
    can_be_wrong = True

    def findings(self, block: SeveralChoicesField) -> list[tuple[str, str, str]]:
        """Limits that no answer meets, beside what is wrong with options."""
        found = super().findings(block)
        most = len(block.options) + block.other
        if block.minimum and block.minimum > min(block.maximum or most, most):
            found.append(("minimum", "Nobody can choose so many.", "Lower the minimum or raise the maximum."))
        return found

    def value_type(self, block: SeveralChoicesField) -> Type:
        """Choices, or blank."""
        return Type(kind=Kind.CHOICES, may_be_blank=True)

    def facets(self, block: SeveralChoicesField) -> dict[str, Facet]:
        """How many were chosen."""
        return {"count": Facet(NUMBER, lambda value: Decimal(len(value)))}

    def parse(self, raw: Any, block: SeveralChoicesField, region: Region) -> Choices | None:
        """Return the chosen options in the order in which they are offered."""
        if isinstance(raw, str):
            raw = [each.strip() for each in raw.split(",") if each.strip()]
        if not isinstance(raw, list) or len(raw) > 1_000:
            raise AnswerError("not_options", "Choose among the options.")
        chosen = {choice: choice for choice in (self.choose(each, block) for each in raw if each != {OTHER: ""})}
        order = {option.code: index for index, option in enumerate(block.options)}
        return Choices(sorted(chosen.values(), key=lambda each: order.get(each, len(order)))) or None

    def from_link(self, text: str, block: SeveralChoicesField, region: Region) -> Any:
        """The options of these codes or labels, with commas between."""
        named = super().from_link(text, block, region)
        if named != text:
            return [named]
        return [super(SeveralChoicesType, self).from_link(each.strip(), block, region) for each in text.split(",")]

    def spoken(self, words: str, block: SeveralChoicesField, region: Region) -> list[Any]:
        """The options that are meant, with commas or lines between."""
        if find_spoken(block.options, words) is not None:
            return [super().spoken(words, block, region)]
        named = [each.strip() for each in re.split(r"[,;\n]", words) if each.strip()]
        return [super(SeveralChoicesType, self).spoken(each, block, region) for each in named]

    def drop(self, value: Choices, offered: Collection[str]) -> Choices | None:
        """Return the choices that are still offered."""
        kept = [choice for choice in value if choice in offered or choice == OTHER]
        return value if len(kept) == len(value) else Choices(kept) or None

    def check(
        self, value: Choices, block: SeveralChoicesField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The least and the greatest number of choices."""
        if block.minimum is not None and len(value) < block.minimum:
            return Sentence("Choose at least {least}.", least=block.minimum)
        if block.maximum is not None and len(value) > block.maximum:
            return Sentence("Choose at most {most}.", most=block.maximum)
        return None

    def limits(self, block: SeveralChoicesField) -> str:
        """The limits in words."""
        least, most = block.minimum, block.maximum
        if least is not None and most is not None:
            return f"{least} to {most} choices"
        return f"{least} choices or more" if least is not None else f"at most {most} choices" if most else ""

    def present(self, value: Choices, block: SeveralChoicesField, region: Region, medium: Medium) -> str:
        """The labels for people, the codes for programs."""
        return ", ".join(str(each) if medium is Medium.CSV and each != OTHER else each.label for each in value)

    def dump(self, value: Choices) -> list[Any]:
        """The codes."""
        return [self.store(choice) for choice in value]

    def load(self, stored: list[Any], block: SeveralChoicesField) -> Choices:
        """The choices of these codes."""
        return Choices(self.restore(each, block) for each in stored)

    def enter(self, value: Choices, block: SeveralChoicesField, region: Region) -> list[Any]:
        """The options' ids."""
        return [self.entered(choice, block) for choice in value]

    def answer_schema(self, block: SeveralChoicesField) -> dict[str, Any]:
        """A list of codes."""
        return {"type": "array", "items": self.answer_codes(block), "uniqueItems": True}

    def sample(self, block: SeveralChoicesField, how: Sampling) -> list[str] | None:
        """Some of the options, few more often than many."""
        most = min(block.maximum or len(block.options), len(block.options))
        least = min(block.minimum or 1, most)
        count = min(how.random.randint(least, most) for _ in range(2)) if most else 0
        return [option.id for option in how.random.sample(block.options, count)] or None
