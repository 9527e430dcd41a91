"""What of a response is a column: fields, repeats and figures, and how each reads its values."""

from dataclasses import dataclass, replace
from decimal import Decimal
from functools import cached_property
from typing import Any
from zoneinfo import ZoneInfo

from codexa.core.definition.figures import BandsFigure, Figure, ProfileFigure
from codexa.core.definition.parts import Field, Repeat, RowKind, blocks_within
from codexa.core.definition.rich_text import plain
from codexa.core.fields import field_type_of
from codexa.core.fields.decimals import shown
from codexa.core.fields.field_type import FieldType, Medium, Region
from codexa.core.fields.grid import GridField
from codexa.core.fields.options import OTHER, Optioned
from codexa.core.form.form import Form
from codexa.core.form.pricing import priced_blocks
from codexa.core.formula.types import NUMBERS
from codexa.core.program.figure_kinds import KeptPart, kind_of
from codexa.core.program.order import money
from codexa.core.program.order_names import ORDER
from codexa.core.responses.holds import Holds, comparable, holds_kind

# What a link brought is a column beside the fields, named by the link's word for it.
LINK = "link."


@dataclass(frozen=True, kw_only=True, slots=True)
class Option:
    """What a choice can be: its code, and what people read."""

    code: str
    label: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Column:
    """A field as a column; `calculated` where no visitor answered it, `numeric` where its values are numbers.

    `earlier` where the form as it is live has it no more. `options` are those of a choice; `parts` the questions of a
    grid, or the fields of a repeat's rows, as columns with ids of their own.
    """

    id: str
    label: str
    number: str
    calculated: bool
    numeric: bool
    holds: Holds
    earlier: bool = False
    options: tuple[Option, ...] = ()
    parts: tuple["Column", ...] = ()


@dataclass(frozen=True)
class HeldField:
    """A field of the form."""

    field: Field

    @cached_property
    def _type(self) -> FieldType[Any]:
        return field_type_of(self.field)

    def column(self, number: str) -> Column:
        """Return it as a column; `number` is that of the outline."""
        field, field_type = self.field, self._type
        kind = field_type.value_type(field).kind
        options = _options(field)
        return Column(
            id=field.id,
            label=plain(field.label),
            number=number,
            calculated=not field_type.answered,
            numeric=kind in NUMBERS,
            holds=_holds(field),
            options=options,
            parts=_questions(field, options) if isinstance(field, GridField) else (),
        )

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        return self._type.present_kept(stored, self.field, region, medium)

    def value(self, stored: Any, region: Region) -> Any:
        """Return a kept value as one to compare; of text with parts, all of it."""
        holds = _holds(self.field)
        kept = self.text(stored, region, Medium.CSV) if holds is Holds.TEXT else stored
        return comparable(kept, holds, ZoneInfo(region.time_zone))


def _holds(field: Field) -> Holds:
    return Holds.GRID if isinstance(field, GridField) else holds_kind(field_type_of(field).value_type(field).kind)


def _options(field: Field) -> tuple[Option, ...]:
    listed = tuple(Option(code=each.code, label=plain(each.label)) for each in getattr(field, "options", ()))
    if isinstance(field, Optioned) and field.other:
        return (*listed, Option(code=OTHER, label=plain(field.other_label)))
    return listed


def _questions(field: GridField, options: tuple[Option, ...]) -> tuple[Column, ...]:
    return tuple(
        Column(
            id=f"{field.id}/{question.code}",
            label=plain(question.label),
            number="",
            calculated=False,
            numeric=False,
            holds=Holds.CHOICE,
            options=options,
        )
        for question in field.questions
    )


@dataclass(frozen=True, slots=True)
class HeldRepeat:
    """A repeat; all its rows are one value."""

    repeat: Repeat

    def column(self, number: str) -> Column:
        """Return it as a column; `number` is that of the outline."""
        return Column(
            id=self.repeat.id,
            label=plain(self.repeat.label) or self.repeat.key,
            number=number,
            calculated=False,
            numeric=False,
            holds=Holds.ROWS,
            parts=tuple(
                replace(column, id=f"{self.repeat.id}/{column.id}", parts=())
                for kind in self.repeat.kinds
                for column in (HeldField(field).column("") for field in fields_of(kind))
            ),
        )

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        kinds = {kind.id: kind for kind in self.repeat.kinds}
        rows = [self._row(row, kinds[row["kind"]], region, medium) for row in stored if row["kind"] in kinds]
        if medium is Medium.CSV:
            return " | ".join(rows)
        return "\n".join(f"{number}. {row}" for number, row in enumerate(rows, 1))

    def _row(self, row: dict[str, Any], kind: RowKind, region: Region, medium: Medium) -> str:
        # In the order of the fields: the database keeps no order of keys.
        given = row["values"]
        cells = [
            f"{plain(field.label)}: {HeldField(field).text(given[field.id], region, medium)}"
            for field in fields_of(kind)
            if field.id in given
        ]
        return f"{plain(kind.label)} ({'; '.join(cells)})"

    def value(self, stored: Any, region: Region) -> Any:
        """Return the rows, each with its values to compare by the ids of their fields; None for no rows."""
        fields = {kind.id: [HeldField(field) for field in fields_of(kind)] for kind in self.repeat.kinds}
        rows = [
            {
                held.field.id: held.value(row["values"][held.field.id], region)
                for held in fields[row["kind"]]
                if held.field.id in row["values"]
            }
            for row in stored
            if row["kind"] in fields
        ]
        return rows or None


def fields_of(kind: RowKind) -> list[Field]:
    """Return the fields of a kind of rows, in order."""
    return [block for block, _ in blocks_within(kind.blocks) if isinstance(block, Field)]


@dataclass(frozen=True, slots=True)
class HeldFigure:
    """A figure, which stands nowhere in the outline."""

    figure: Figure

    def column(self, _number: str) -> Column:
        """Return it as a column."""
        figure = self.figure
        profiles = figure.profiles if isinstance(figure, ProfileFigure) else ()
        return Column(
            id=figure.id,
            label=figure.name or figure.key,
            number="",
            calculated=True,
            numeric=not profiles,
            holds=self._holds(),
            options=tuple(Option(code=each.code, label=each.label) for each in profiles),
        )

    def _holds(self) -> Holds:
        if isinstance(self.figure, ProfileFigure):
            return Holds.CHOICE
        return holds_kind(kind_of(self.figure).value_type(self.figure).kind)

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        return kind_of(self.figure).present_kept(self.figure, stored, region, medium)

    def value(self, stored: Any, region: Region) -> Any:
        """Return a kept value as one to compare."""
        kept = self.text(stored, region, Medium.CSV)
        return comparable(kept, self._holds(), ZoneInfo(region.time_zone))


@dataclass(frozen=True, slots=True)
class HeldPart:
    """A part of a figure that is kept with it: the name of its band, a profile's share."""

    figure: Figure
    part: KeptPart

    def column(self, _number: str) -> Column:
        """Return it as a column."""
        bands = self.figure.bands if isinstance(self.figure, BandsFigure) else ()
        return Column(
            id=part_id(self.figure, self.part),
            label=f"{self.figure.name or self.figure.key}: {self.part.title}",
            number="",
            calculated=True,
            numeric=self.part.numeric,
            holds=self._holds,
            options=tuple(
                Option(code=each, label=each) for each in dict.fromkeys(band.label for band in bands) if each
            ),
        )

    @property
    def _holds(self) -> Holds:
        return Holds.NUMBER if self.part.numeric else Holds.CHOICE

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        value = self.part.take(stored)
        if value is None:
            return ""
        return shown(Decimal(value), region) if self.part.numeric and medium is not Medium.CSV else str(value)

    def value(self, stored: Any, region: Region) -> Any:
        """Return a kept value as one to compare."""
        value = self.part.take(stored)
        return None if value is None else comparable(value, self._holds, ZoneInfo(region.time_zone))


# What of an order is a column: its name below the order, and its title.
_OF_ORDER = {
    "lines": "Order",
    "subtotal": "Order: subtotal",
    "discount": "Order: taken off",
    "shipping": "Order: shipping",
    "tax": "Order: tax",
    "total": "Order: total",
}


@dataclass(frozen=True, slots=True)
class HeldOrder:
    """A part of the order."""

    name: str

    def column(self, _number: str) -> Column:
        """Return it as a column."""
        title, numeric = _OF_ORDER[self.name], self.name != "lines"
        holds = Holds.NUMBER if numeric else Holds.TEXT
        return Column(id=f"{ORDER}.{self.name}", label=title, number="", calculated=True, numeric=numeric, holds=holds)

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        if self.name == "lines":
            return "; ".join(f"{line['quantity']} × {line['label']}" for line in stored["lines"])
        amount: str = stored[self.name]
        return amount if medium is Medium.CSV else money(Decimal(amount), replace(region, currency=stored["currency"]))

    def value(self, stored: Any, region: Region) -> Any:
        """Return a kept value as one to compare."""
        holds = Holds.TEXT if self.name == "lines" else Holds.NUMBER
        return comparable(self.text(stored, region, Medium.CSV), holds, ZoneInfo(region.time_zone))


def part_id(figure: Figure, part: KeptPart) -> str:
    """Return the id of the column of a figure's part."""
    return f"{figure.id}.{part.name}"


Held = HeldField | HeldRepeat | HeldFigure | HeldPart | HeldOrder


def held_in(form: Form) -> dict[str, Held]:
    """Return what a response of that edition has one value of, by id."""
    held: dict[str, Held] = {
        each.id: HeldField(each) if isinstance(each, Field) else HeldRepeat(each) for each in form.columns()
    }
    for figure in form.figures:
        held[figure.id] = HeldFigure(figure)
        held |= {part_id(figure, part): HeldPart(figure, part) for part in kind_of(figure).kept_parts(figure)}
    if any(priced_blocks(form)):
        held |= {f"{ORDER}.{name}": HeldOrder(name) for name in _OF_ORDER}
    return held


def source_of(held_id: str) -> str:
    """Return the id under which a response keeps what a column shows: a part's is that of its figure or order."""
    return held_id.partition(".")[0]


def columns_of(form: Form) -> tuple[Column, ...]:
    """Return the columns of an edition, in order; those of what links bring come last."""
    outline = form.numbers()
    links = (_link_column(each.name) for each in form.links)
    return (*(held.column(outline.get(held_id, "")) for held_id, held in held_in(form).items()), *links)


def _link_column(name: str) -> Column:
    label = f"Link: {name}"
    return Column(id=LINK + name, label=label, number="", calculated=False, numeric=False, holds=Holds.TEXT)
