"""What of a response is a column: fields, repeats and figures, and how each reads its values."""

from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any

from codexa.core.definition.figures import Figure
from codexa.core.definition.parts import Field, Repeat, RowKind, blocks_within
from codexa.core.definition.rich_text import plain
from codexa.core.fields import field_type_of
from codexa.core.fields.decimals import shown
from codexa.core.fields.field_type import Medium, Region
from codexa.core.form.form import Form
from codexa.core.form.pricing import priced_blocks
from codexa.core.formula.types import NUMBERS
from codexa.core.program.figure_kinds import KeptPart, kind_of
from codexa.core.program.order import money
from codexa.core.program.order_names import ORDER


@dataclass(frozen=True, kw_only=True, slots=True)
class Column:
    """A field as a column; `calculated` where no visitor answered it, `numeric` where its values are numbers.

    `earlier` where the form as it is live has it no more.
    """

    id: str
    label: str
    number: str
    calculated: bool
    numeric: bool
    earlier: bool = False


@dataclass(frozen=True, slots=True)
class HeldField:
    """A field of the form."""

    field: Field

    def column(self, number: str) -> Column:
        """Return it as a column; `number` is that of the outline."""
        field, field_type = self.field, field_type_of(self.field)
        numeric = field_type.value_type(field).kind in NUMBERS
        label = plain(field.label)
        return Column(id=field.id, label=label, number=number, calculated=not field_type.answered, numeric=numeric)

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        field_type = field_type_of(self.field)
        return field_type.present(field_type.load(stored, self.field), self.field, region, medium)


@dataclass(frozen=True, slots=True)
class HeldRepeat:
    """A repeat; all its rows are one value."""

    repeat: Repeat

    def column(self, number: str) -> Column:
        """Return it as a column; `number` is that of the outline."""
        label = plain(self.repeat.label) or self.repeat.key
        return Column(id=self.repeat.id, label=label, number=number, calculated=False, numeric=False)

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        kinds = {kind.id: kind for kind in self.repeat.kinds}
        rows = [self._row(row, kinds[row["kind"]], region, medium) for row in stored if row["kind"] in kinds]
        if medium is Medium.CSV:
            return " | ".join(rows)
        return "\n".join(f"{number}. {row}" for number, row in enumerate(rows, 1))

    def _row(self, row: dict[str, Any], kind: RowKind, region: Region, medium: Medium) -> str:
        # In the order of the fields: the database keeps no order of keys.
        fields = [block for block, _ in blocks_within(kind.blocks) if isinstance(block, Field)]
        given = row["values"]
        cells = [
            f"{plain(field.label)}: {HeldField(field).text(given[field.id], region, medium)}"
            for field in fields
            if field.id in given
        ]
        return f"{plain(kind.label)} ({'; '.join(cells)})"


@dataclass(frozen=True, slots=True)
class HeldFigure:
    """A figure, which stands nowhere in the outline."""

    figure: Figure

    def column(self, _number: str) -> Column:
        """Return it as a column."""
        name = self.figure.name or self.figure.key
        return Column(id=self.figure.id, label=name, number="", calculated=True, numeric=True)

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        return kind_of(self.figure).present_kept(self.figure, stored, region, medium)


@dataclass(frozen=True, slots=True)
class HeldPart:
    """A part of a figure that is kept with it: the name of its band, a profile's share."""

    figure: Figure
    part: KeptPart

    def column(self, _number: str) -> Column:
        """Return it as a column."""
        label = f"{self.figure.name or self.figure.key}: {self.part.title}"
        return Column(
            id=part_id(self.figure, self.part), label=label, number="", calculated=True, numeric=self.part.numeric
        )

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        value = self.part.take(stored)
        if value is None:
            return ""
        return shown(Decimal(value), region) if self.part.numeric and medium is not Medium.CSV else str(value)


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
        return Column(id=f"{ORDER}.{self.name}", label=title, number="", calculated=True, numeric=numeric)

    def text(self, stored: Any, region: Region, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        if self.name == "lines":
            return "; ".join(f"{line['quantity']} × {line['label']}" for line in stored["lines"])
        amount: str = stored[self.name]
        return amount if medium is Medium.CSV else money(Decimal(amount), replace(region, currency=stored["currency"]))


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
    """Return the columns of an edition, in order."""
    outline = form.numbers()
    return tuple(held.column(outline.get(held_id, "")) for held_id, held in held_in(form).items())
