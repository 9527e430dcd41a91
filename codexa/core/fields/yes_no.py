"""Yes/no and consent: answers that are TRUE or FALSE."""

from collections.abc import Mapping
from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import StringConstraints

from codexa.core.definition.parts import Field, FieldFace, Question, VisitorText
from codexa.core.definition.rich_text import RichText
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, Family, FieldType, Medium, Region, Sampling
from codexa.core.formula import convert
from codexa.core.formula.types import Kind, Type
from codexa.core.languages import translated
from codexa.core.sentences import Sentence

_WORDS = {"yes": True, "true": True, "no": False, "false": False}
Word = Annotated[str, StringConstraints(min_length=1, max_length=60), VisitorText()]
BooleanModel = TypeVar("BooleanModel", bound=Field)


class BooleanType(FieldType[BooleanModel], Generic[BooleanModel]):
    """A field whose value is yes or no."""

    def value_type(self, block: BooleanModel) -> Type:
        """Yes or no, or blank."""
        return Type(kind=Kind.YES_NO, may_be_blank=True)

    def parse(self, raw: Any, block: BooleanModel, region: Region) -> bool | None:
        """Return the answer of true, false, "yes" or "no"."""
        if raw == "":
            return None
        value = raw if isinstance(raw, bool) else _WORDS.get(raw.strip().lower()) if isinstance(raw, str) else None
        if value is None:
            raise AnswerError("not_yes_or_no", "Choose yes or no.")
        return value

    def adopt(self, value: Any, block: BooleanModel, region: Region) -> bool | None:
        """Return a formula's result as yes or no."""
        return convert.condition(value) if not isinstance(value, str) else self.parse(value, block, region)

    def dump(self, value: bool) -> bool:
        """The answer itself."""
        return value

    def load(self, stored: bool, block: BooleanModel) -> bool:
        """The answer itself."""
        return stored

    def answer_schema(self, block: BooleanModel) -> dict[str, Any]:
        """True or false."""
        return {"type": "boolean"}


class YesNoFace(FieldFace):
    """What the browser may know of a yes/no question: the words of its two answers."""

    type: Literal["yes_no"] = "yes_no"
    yes: Word = "Yes"
    no: Word = "No"


class YesNoField(YesNoFace, Question):
    """A question that is answered by yes or no; in formulas TRUE or FALSE."""


class YesNoType(BooleanType[YesNoField]):
    """Yes/no."""

    name = "yes_no"
    title = "Yes or no"
    family = Family.CHOICES
    purpose = "A question with two answers; in formulas TRUE or FALSE."
    face = YesNoFace
    block = YesNoField

    def present(self, value: bool, block: YesNoField, region: Region, medium: Medium) -> str:
        """The word for people, TRUE or FALSE for programs."""
        if medium is Medium.CSV:
            return convert.text(value)
        return block.yes if value else block.no

    def spoken(self, words: str, block: YesNoField, region: Region) -> bool:
        """The answer of these words, or of their beginning."""
        wanted = words.strip().strip(".!").casefold()
        meant = [
            answer for word, answer in ((block.yes, True), (block.no, False)) if word.casefold().startswith(wanted)
        ]
        if len(meant) == 1 and wanted:
            return meant[0]
        raise AnswerError("not_yes_or_no", Sentence("Choose {yes} or {no}.", yes=block.yes, no=block.no))

    def sample(self, block: YesNoField, how: Sampling) -> bool:
        """Either."""
        return how.random.random() < 0.5


class ConsentFace(FieldFace):
    """What the browser may know of a consent: the statement to agree to."""

    type: Literal["consent"] = "consent"
    statement: RichText = "I agree."


class ConsentField(ConsentFace, Question):
    """A box to tick; where it is required, it must be ticked."""


class ConsentType(BooleanType[ConsentField]):
    """Consent."""

    name = "consent"
    title = "Consent"
    family = Family.PEOPLE
    purpose = "A statement to agree to, with a box to tick."
    face = ConsentFace
    block = ConsentField

    def findings(self, block: ConsentField) -> list[tuple[str, str, str]]:
        """A statement that says nothing."""
        if block.statement.strip():
            return []
        return [("statement", "There is nothing to agree to.", "Write the statement.")]

    def parse(self, raw: Any, block: ConsentField, region: Region) -> bool | None:
        """Return yes, or blank where the box is not ticked."""
        return super().parse(raw, block, region) or None

    def check(
        self, value: bool, block: ConsentField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """Nothing: a box that is ticked is right."""
        return None

    def present(self, value: bool, block: ConsentField, region: Region, medium: Medium) -> str:
        """Agreed."""
        return convert.text(value) if medium is Medium.CSV else translated("agreed", region.locale)

    def sample(self, block: ConsentField, how: Sampling) -> bool:
        """Ticked."""
        return True
