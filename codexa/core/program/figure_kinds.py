"""The kinds of figures: what each is called in formulas, how it is computed, shown and kept."""

from abc import ABC, abstractmethod
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from typing import Any, ClassVar, Generic, TypeVar

from codexa.core.definition.figures import (
    BandsFigure,
    CounterFigure,
    Figure,
    FormulaFigure,
    ProfileFigure,
    ScoreFigure,
)
from codexa.core.definition.parts import Field, Question
from codexa.core.fields import field_type_of, formatted
from codexa.core.fields.field_type import Medium, Region
from codexa.core.form.form import Form
from codexa.core.formula import convert
from codexa.core.formula.scope import Reference
from codexa.core.formula.types import NUMBER, NUMBERS, TEXT, Kind, Type
from codexa.core.formula.values import FormulaFailure
from codexa.core.program.figures import BandValue, band_finder, ranker, scorer
from codexa.core.program.places import Spot
from codexa.core.program.scope import Entry, Path, presenter
from codexa.core.program.writer import Writer

FigureModel = TypeVar("FigureModel", bound=Figure)
_BLANK_TEXT = Type(kind=TEXT.kind, may_be_blank=True)
_BLANK_NUMBER = Type(kind=NUMBER.kind, may_be_blank=True)


@dataclass(frozen=True, slots=True)
class KeptPart:
    """A part of a kept figure: its name in formulas, what people call it, and how it is read off the kept value."""

    name: str
    title: str
    numeric: bool
    take: Callable[[Any], Any]


class FigureKind(ABC, Generic[FigureModel]):
    """One kind of figure."""

    model: ClassVar[type[Figure]]

    @abstractmethod
    def value(self, figure: FigureModel, value: Any) -> Any:
        """Return what the figure's bare name stands for, of the value that is computed (never blank)."""

    @abstractmethod
    def value_type(self, figure: FigureModel) -> Type:
        """Return the type of what the bare name stands for."""

    def facets(self, figure: FigureModel) -> dict[Path, tuple[Type, Callable[[Any], Any]]]:
        """Return the parts that formulas can name, by the words after the figure's key."""
        return {}

    @abstractmethod
    def write(self, figure: FigureModel, spot: Spot, writer: Writer) -> None:
        """Add the fact that computes the figure."""

    @abstractmethod
    def dump(self, figure: FigureModel, value: Any) -> Any:
        """Return a computed value (never blank) as JSON to keep."""

    def kept_value(self, kept: Any) -> str | None:
        """Return, of what `dump` gave, the plain text of the figure's own value."""
        return str(kept)

    def present_kept(self, figure: FigureModel, kept: Any, region: Region, medium: Medium) -> str:
        """Return what `dump` gave as text for people or programs."""
        text = self.kept_value(kept)
        return "" if text is None else formatted.present(formatted.load(text, figure), figure, region, medium)

    def kept_parts(self, figure: FigureModel) -> tuple[KeptPart, ...]:
        """Return what else of it `dump` keeps, each worth a column of its own."""
        return ()

    def presenter(self, figure: FigureModel, region: Region) -> Callable[[Any], str]:
        """Return what writes the figure's own value (never blank) for people."""
        return lambda value: formatted.present(value, figure, region, Medium.PAGE)

    def findings(self, figure: FigureModel, form: Form) -> Iterator[tuple[str, str, str]]:
        """Yield what is wrong in the figure's own settings: (setting, message, remedy)."""
        yield from ()

    def names(self, figure: FigureModel, spot: Spot, form: Form) -> dict[Path, Entry]:
        """Return every name that the figure has."""
        reference = Reference(
            slot=spot.slot, type=self.value_type(figure), facet=lambda value: self.value(figure, value)
        )
        shown = figure.shown_to_visitors
        present = self.presenter(figure, form.region)
        names: dict[Path, Entry] = {
            (figure.key,): Entry(reference=reference, present=present, owner=figure.id, public=shown)
        }
        for path, (kind, take) in self.facets(figure).items():
            part = Reference(slot=spot.slot, type=kind, facet=take)
            entry = Entry(reference=part, present=presenter(form.region), owner=figure.id, public=shown)
            names[(figure.key, *(word.lower() for word in path))] = entry
        return names


def _settler(figure: Figure, region: Region) -> Callable[[Any], Any]:
    return lambda value: formatted.settle(value, figure, region)


class FormulaKind(FigureKind[FormulaFigure]):
    """A formula."""

    model = FormulaFigure

    def value(self, figure: FormulaFigure, value: Any) -> Any:
        """The value itself."""
        return value

    def value_type(self, figure: FormulaFigure) -> Type:
        """Of its format."""
        return formatted.type_of_format(figure)

    def write(self, figure: FormulaFigure, spot: Spot, writer: Writer) -> None:
        """The formula, settled by its format."""
        writer.settled(figure.id, spot, "formula", _settler(figure, writer.region))

    def dump(self, figure: FormulaFigure, value: Any) -> str:
        """Plain text."""
        return convert.text(value)

    def findings(self, figure: FormulaFigure, form: Form) -> Iterator[tuple[str, str, str]]:
        """A missing formula."""
        if not figure.formula.strip():
            yield "formula", "There is no formula to calculate with.", "Write one, such as adults * 2."


class BandsKind(FigureKind[BandsFigure]):
    """Bands."""

    model = BandsFigure

    def value(self, figure: BandsFigure, value: Any) -> Any:
        """The band's value."""
        return value.value

    def value_type(self, figure: BandsFigure) -> Type:
        """Of its format, blank below the first band."""
        return formatted.type_of_format(figure)

    def facets(self, figure: BandsFigure) -> dict[Path, tuple[Type, Callable[[Any], Any]]]:
        """The band's name."""
        return {("label",): (_BLANK_TEXT, lambda value: value.label)}

    def write(self, figure: BandsFigure, spot: Spot, writer: Writer) -> None:
        """The band in which the formula's result lies."""
        settle = _settler(figure, writer.region)
        makers = [_band_maker(settle, band.label, index) for index, band in enumerate(figure.bands)]
        writer.banded(figure.id, spot, band_finder(figure), makers)

    def dump(self, figure: BandsFigure, value: Any) -> dict[str, str]:
        """Value and name."""
        return {"value": convert.text(value.value), "label": value.label}

    def kept_value(self, kept: Any) -> str:
        """The band's value."""
        return str(kept["value"])

    def kept_parts(self, figure: BandsFigure) -> tuple[KeptPart, ...]:
        """The band's name, where bands have any."""
        named = any(band.label for band in figure.bands)
        return (KeptPart("label", "name", False, lambda kept: kept["label"]),) if named else ()

    def findings(self, figure: BandsFigure, form: Form) -> Iterator[tuple[str, str, str]]:
        """Missing bands, overlaps, and what lies in none."""
        if not figure.bands:
            yield "bands", "There are no bands.", "Add one, with the number from which it applies."
        for at, band in enumerate(figure.bands):
            if not band.value.strip():
                message = f"Band {at + 1} has no value."
                yield f"bands.{at}.value", message, "Write a number, or a formula such as distance * 0.85."
        starts = [band.start for band in figure.bands]
        twice = next((start for start, count in Counter(starts).items() if count > 1), False)
        if twice is not False:
            where = "everything below the next" if twice is None else convert.text(twice)
            yield "bands", f"Two bands overlap: both start at {where}.", "Let each band start at a number of its own."
        known = [start for start in starts if start is not None]
        if figure.end is not None and known and figure.end <= max(known):
            yield "bands", f"The last band ends at {convert.text(figure.end)}, before it starts.", "Raise the end."


class ScoreKind(FigureKind[ScoreFigure]):
    """Score."""

    model = ScoreFigure

    def value(self, figure: ScoreFigure, value: Any) -> Decimal:
        """The points."""
        points: Decimal = value.points
        return points

    def value_type(self, figure: ScoreFigure) -> Type:
        """A number."""
        return _BLANK_NUMBER

    def facets(self, figure: ScoreFigure) -> dict[Path, tuple[Type, Callable[[Any], Any]]]:
        """The points, the greatest score, the part of it, and how many answers were right, given or asked for."""
        return {
            ("greatest",): (_BLANK_NUMBER, lambda value: value.greatest),
            ("share",): (_BLANK_NUMBER, lambda value: value.share),
            ("right",): (_BLANK_NUMBER, lambda value: value.right),
            ("answered",): (_BLANK_NUMBER, lambda value: value.answered),
            ("questions",): (_BLANK_NUMBER, lambda value: value.questions),
            ("percent",): (_BLANK_NUMBER, lambda value: value.percent),
            ("points",): (_BLANK_NUMBER, lambda value: value.points),
        }

    def write(self, figure: ScoreFigure, spot: Spot, writer: Writer) -> None:
        """The points of all answers that count."""
        picks = {field.id: most_picks(field) for field in writer.form.fields()}
        writer.over_answers(figure.id, spot, [each.field for each in figure.questions], scorer(figure, picks))

    def dump(self, figure: ScoreFigure, value: Any) -> dict[str, str]:
        """Points, greatest, right, answered."""
        names = ("points", "greatest", "right", "answered")
        return {name: convert.text(getattr(value, name)) for name in names}

    def kept_value(self, kept: Any) -> str:
        """The points."""
        return str(kept["points"])

    def kept_parts(self, figure: ScoreFigure) -> tuple[KeptPart, ...]:
        """The greatest score, and how many answers were right and given."""
        titles = {"greatest": "greatest", "right": "right answers", "answered": "answered"}
        return tuple(KeptPart(name, title, True, _entry(name)) for name, title in titles.items())

    def findings(self, figure: ScoreFigure, form: Form) -> Iterator[tuple[str, str, str]]:
        """Missing questions, deleted fields, and codes that no option has."""
        yield from _question_findings(figure.questions, form)


class ProfileKind(FigureKind[ProfileFigure]):
    """Profile points."""

    model = ProfileFigure

    def value(self, figure: ProfileFigure, value: Any) -> str | None:
        """The winner's code."""
        return None if value.winner is None else str(value.winner.code)

    def value_type(self, figure: ProfileFigure) -> Type:
        """Text, or blank."""
        return _BLANK_TEXT

    def facets(self, figure: ProfileFigure) -> dict[Path, tuple[Type, Callable[[Any], Any]]]:
        """The winner's label, the ranking, and each profile's points and share in percent."""
        facets: dict[Path, tuple[Type, Callable[[Any], Any]]] = {
            ("label",): (_BLANK_TEXT, lambda value: None if value.winner is None else value.winner.label),
            ("ranking",): (_BLANK_TEXT, lambda value: ", ".join(each.label for each in value.order)),
        }
        for place, word in enumerate(("first", "second", "third")):
            facets[word,] = (_BLANK_TEXT, _label_at(place))
        for profile in figure.profiles:
            code = profile.code
            facets["points", code] = (_BLANK_NUMBER, _number_of("points", code))
            facets["share", code] = (_BLANK_NUMBER, _number_of("shares", code))
        return facets

    def write(self, figure: ProfileFigure, spot: Spot, writer: Writer) -> None:
        """The profiles ranked by all answers that count."""
        writer.over_answers(figure.id, spot, [each.field for each in figure.questions], ranker(figure))

    def dump(self, figure: ProfileFigure, value: Any) -> dict[str, Any]:
        """The winner, points and shares."""
        return {
            "winner": self.value(figure, value),
            "points": {code: convert.text(each) for code, each in value.points.items()},
            "shares": {code: convert.text(each) for code, each in value.shares.items()},
        }

    def kept_parts(self, figure: ProfileFigure) -> tuple[KeptPart, ...]:
        """The points and the share of each profile."""
        return tuple(
            KeptPart(f"{word}.{each.code}", f"{each.label}, {title}", True, _entry(table, each.code))
            for word, table, title in (("points", "points", "points"), ("share", "shares", "percent"))
            for each in figure.profiles
        )

    def presenter(self, figure: ProfileFigure, region: Region) -> Callable[[Any], str]:
        """The winner's label."""
        labels = {profile.code: profile.label for profile in figure.profiles}
        return lambda code: labels.get(code) or code

    def present_kept(self, figure: ProfileFigure, kept: Any, region: Region, medium: Medium) -> str:
        """The winner's label for people, its code for programs."""
        winner: str = kept["winner"] or ""
        return winner if medium is Medium.CSV else self.presenter(figure, region)(winner)

    def findings(self, figure: ProfileFigure, form: Form) -> Iterator[tuple[str, str, str]]:
        """Missing profiles, deleted fields, and codes that nothing has."""
        if not figure.profiles:
            yield "profiles", "There is no profile to speak for.", "Add at least one."
        codes = {profile.code for profile in figure.profiles}
        for question in figure.questions:
            unknown = {code for points in question.points.values() for code in points} - codes
            if unknown:
                yield "questions", f"Points go to {min(unknown)}, which is no profile.", "Correct the code."
        yield from _question_findings(figure.questions, form)


class CounterKind(FigureKind[CounterFigure]):
    """Counter."""

    model = CounterFigure

    def value(self, figure: CounterFigure, value: Any) -> Any:
        """The number itself."""
        return value

    def value_type(self, figure: CounterFigure) -> Type:
        """A number."""
        return NUMBER

    def write(self, figure: CounterFigure, spot: Spot, writer: Writer) -> None:
        """What the conditions that hold add up to."""
        writer.counter(figure.id, spot, figure.start, [each.by for each in figure.counts])

    def dump(self, figure: CounterFigure, value: Any) -> str:
        """Plain text."""
        return convert.text(value)

    def findings(self, figure: CounterFigure, form: Form) -> Iterator[tuple[str, str, str]]:
        """Nothing to count."""
        if not figure.counts:
            yield "counts", "There is nothing to count.", "Add a condition."


def _band_maker(settle: Callable[[Any], Any], label: str, index: int) -> Callable[[Any], BandValue]:
    return lambda value: BandValue(settle(value), label, index)


def _entry(*names: str) -> Callable[[Any], Any]:
    def take(kept: Any) -> Any:
        for name in names:
            kept = kept.get(name) if isinstance(kept, dict) else None
        return kept

    return take


def _label_at(place: int) -> Callable[[Any], Any]:
    return lambda value: next((profile.label for profile in value.order[place:]), None)


def _number_of(table: str, code: str) -> Callable[[Any], Any]:
    return lambda value: getattr(value, table)[code]


def most_picks(field: Field) -> int | None:
    """Return how many options of a field can be chosen: one, or its maximum (None for any number)."""
    options = field_options(field)
    if not options or not hasattr(field, "maximum"):
        return 1
    most: int | None = field.maximum
    return most


def field_options(field: Field) -> list[str]:
    """Return the codes of a field's options, in small letters."""
    return [option.code.casefold() for option in getattr(field, "options", ())]


_RIGHT_REMEDIES = {
    Kind.YES_NO: "Choose yes or no.",
    Kind.NUMBER: "Write a plain number within the field's limits.",
    Kind.DATE: "Write the day as 2026-03-05.",
}


def _kind_of(field: Field) -> Kind:
    kind = field_type_of(field).value_type(field).kind
    return Kind.NUMBER if kind in NUMBERS else kind


def _is_never(field: Field, text: str) -> bool:
    """Say whether a text can be no answer to a field without options."""
    match _kind_of(field):
        case Kind.YES_NO:
            return text.casefold() not in ("true", "false")
        case Kind.NUMBER:
            number = convert.plain_number(text.strip())
            least, most = getattr(field, "minimum", None), getattr(field, "maximum", None)
            return number is None or (least is not None and number < least) or (most is not None and number > most)
        case Kind.DATE:
            try:
                convert.date(text)
            except FormulaFailure:
                return True
    return False


def _question_findings(questions: Any, form: Form) -> Iterator[tuple[str, str, str]]:
    fields = {field.id: field for field in form.columns() if isinstance(field, Question)}
    if not questions:
        yield "questions", "No field gives points.", "Add the fields that count."
    for question in questions:
        field = fields.get(question.field)
        if field is None:
            yield "questions", "A field that gives points was deleted.", "Remove it here, or bring the field back."
            continue
        options = field_options(field)
        never = next((text for text in getattr(question, "right", ()) if _is_never(field, text)), None)
        if never is not None:
            message = f"No answer to {field.label or field.key} can ever be “{never}”, which counts as right."
            yield "questions", message, _RIGHT_REMEDIES.get(_kind_of(field), "Choose what the field can hold.")
        said = (option.code for option in getattr(question, "says", ()))
        named = (*question.points, *getattr(question, "right", ()), *said)
        unknown = [code for code in named if code.casefold() not in options]
        if options and unknown and never is None:
            message = f"{field.label or field.key} has no option {unknown[0]}, which gives points or has words."
            yield "questions", message, "Correct the code, or remove its points and words."


_KINDS: dict[type[Figure], FigureKind[Any]] = {
    kind.model: kind for kind in (FormulaKind(), BandsKind(), ScoreKind(), ProfileKind(), CounterKind())
}


def kind_of(figure: Figure) -> FigureKind[Any]:
    """Return the kind of a figure."""
    return _KINDS[type(figure)]
