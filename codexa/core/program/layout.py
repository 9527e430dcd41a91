"""The layout of a form: where each value stands, and what each name means."""

from functools import cached_property, partial
from typing import Any

from codexa.core.definition.parts import Block, Field, Repeat, RowKind
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import FieldType, Medium, Region
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.form import Form
from codexa.core.form.pricing import priced_blocks
from codexa.core.formula import convert
from codexa.core.formula.scope import Home, Reference
from codexa.core.formula.types import YES_NO, Kind, Type
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.order_names import order_entries
from codexa.core.program.places import Spot
from codexa.core.program.record_parts import RecordsPart, part_entry, part_named
from codexa.core.program.scope import AnyScope, Entry, FormScope, InnerScope, Path, presenter
from codexa.core.program.spots import OrderSpots, Spots

_LONGEST_COLUMN = 6  # words of a name: lines.pair.telescope.site.name


class Layout:
    """Gives every value its spot, and every scope its names. Of two things with one key the first counts."""

    def __init__(self, form: Form) -> None:
        self.form = form
        self.spots = Spots()
        self.columns: dict[Path, tuple[Spot, Repeat, dict[str, Spot]]] = {}
        self._column_entries: dict[Path, Entry] = {}
        self._entries: dict[Path, Entry] = {}
        self._kind_entries: dict[str, dict[Path, Entry]] = {}
        # Where formulas find whether a block is shown, by the block's id: only of blocks that one asks of.
        self.asked_shown: dict[str, Spot] = {}
        self._blocks: dict[tuple[str, str], str] = {}
        # Which parts of a chosen record something asks for, by the block's id.
        self.asked_parts: dict[str, set[tuple[str, ...]]] = {}
        self._lay_out()
        self.order = self._place_order() if any(priced_blocks(form)) else None
        self.scope = FormScope(self._entries, self._column, form.region, partial(self._asked, ""))
        self.kind_scopes = {
            kind: InnerScope(entries, self.scope, partial(self._asked, kind))
            for kind, entries in self._kind_entries.items()
        }

    def scope_of(self, kind: RowKind | None) -> AnyScope:
        """Return the scope of the blocks of a row kind, or of those outside rows."""
        return self.scope if kind is None else self.kind_scopes[kind.id]

    def _lay_out(self) -> None:
        for repeat in self.form.repeats():
            self.spots.rows[repeat.id] = self.spots.new(initial=())
            for kind in repeat.kinds:
                self.spots.add_rows(kind.id)
                self._kind_entries[kind.id] = {}
        for block, row_kind in self.form.blocks_and_kinds():
            self._place(block, row_kind)
        for figure in self.form.figures:
            spot = self.spots.values[figure.id] = self.spots.new()
            for path, name_entry in kind_of(figure).names(figure, spot, self.form).items():
                self._entries.setdefault(path, name_entry)

    def _place(self, block: Block, row_kind: RowKind | None) -> None:
        kind = "" if row_kind is None else row_kind.id
        entries = self._kind_entries[kind] if kind else self._entries
        self._blocks.setdefault((kind, block.key), block.id)
        if isinstance(block, Field):
            spot = self.spots.values[block.id] = self.spots.new(kind)
            for path, entry in field_entries(block, spot, self.form.region).items():
                entries.setdefault(path, entry)
        elif isinstance(block, Repeat):
            spot = self.spots.values[block.id] = self.spots.new()
            reference = Reference(slot=spot.slot, type=Type(kind=Kind.ROWS, may_be_blank=True), can_fail=False)
            count = Entry(reference=reference, present=lambda rows: str(len(rows)), owner=block.id)
            entries.setdefault((block.key,), count)

    def _place_order(self) -> OrderSpots:
        spots = OrderSpots(
            lines=self.spots.new(), discounts=self.spots.new(), shipping=self.spots.new(), total=self.spots.new()
        )
        for path, entry in order_entries(spots, self.form.region).items():
            self._entries.setdefault(path, entry)
        return spots

    def _asked(self, kind: str, path: Path) -> Entry | None:
        """Return what is there only where something asks for it: whether a block is shown, a part of its record."""
        return self._shown(kind, path) or self._part(kind, path)

    def _part(self, kind: str, path: Path) -> Entry | None:
        """Return what a column of a chosen record stands for: telescope.aperture, telescope.site.name."""
        whole = (self._kind_entries[kind] if kind else self._entries).get(path[:1])
        block = self._record_choices.get(whole.owner) if whole is not None else None
        part = None if block is None else part_named(self.form, block, path[1:])
        if whole is None or block is None or part is None:
            return None
        self.asked_parts.setdefault(block.id, set()).add(part.path)
        return part_entry(self.form, block, part, whole.reference)

    @cached_property
    def _record_choices(self) -> dict[str, RecordChoiceField]:
        return {each.id: each for each in self.form.fields() if isinstance(each, RecordChoiceField)}

    def _shown(self, kind: str, path: Path) -> Entry | None:
        """Return what says whether a block is shown, all that it is part of considered: group.shown."""
        block = self._blocks.get((kind, path[0]))
        if block is None or path[1:] != ("shown",):
            return None
        spot = self.asked_shown[block] = self.asked_shown.get(block) or self.spots.new(kind)
        home = Home.ROW if kind else Home.FORM
        reference = Reference(slot=spot.slot, type=YES_NO, home=home)
        return Entry(reference=reference, present=convert.text, owner=block)

    def _column(self, path: Path) -> Entry | None:
        """Return the column that a name such as lines.amount or lines.pair.amount stands for."""
        if path not in self._column_entries and (entry := self._new_column(path)) is not None:
            self._column_entries[path] = entry
        return self._column_entries.get(path)

    def _new_column(self, path: Path) -> Entry | None:
        repeat = next((each for each in self.form.repeats() if each.key == path[0]), None)
        if repeat is None or not 2 <= len(path) <= _LONGEST_COLUMN:
            return None
        kinds, name = list(repeat.kinds), path[1:]
        own = [kind for kind in kinds if kind.key == name[0]]
        if own and len(name) > 1:
            kinds, name = own, name[1:]
        named = ((kind.id, self._kind_entries[kind.id].get(name) or self._part(kind.id, name)) for kind in kinds)
        found = {kind: entry for kind, entry in named if entry is not None and not _is_list(entry)}
        return self._listed(path, repeat, found) if found else None

    def _listed(self, path: Path, repeat: Repeat, found: dict[str, Entry]) -> Entry:
        spot = self.spots.new(initial=())
        self.columns[path] = (spot, repeat, {kind: Spot(kind, each.reference.slot) for kind, each in found.items()})
        first = next(iter(found.values()))
        kinds = {each.reference.type.kind for each in found.values()}
        item = first.reference.type.kind if len(kinds) == 1 else Kind.ANY
        facet = first.reference.facet
        reference = Reference(
            slot=spot.slot,
            type=Type(kind=item, is_list=True, may_be_blank=True),
            facet=None if facet is None else lambda values: [None if v is None else facet(v) for v in values],
        )
        return Entry(reference=reference, present=presenter(self.form.region), owner=repeat.id)


def _is_list(entry: Entry) -> bool:
    # A list of lists is none that formulas know.
    return isinstance(entry.reference.facet, RecordsPart)


def field_entries(field: Field, spot: Spot, region: Region) -> dict[Path, Entry]:
    """Return the names of a field and of the parts of its value."""
    field_type = field_type_of(field)
    home = Home.ROW if spot.kind else Home.FORM
    shown = _shown_by(field_type, field, region)
    fails = not field_type.answered
    reference = Reference(slot=spot.slot, type=field_type.value_type(field), can_fail=fails, home=home)
    entries: dict[Path, Entry] = {(field.key,): Entry(reference=reference, present=shown, owner=field.id)}
    for name, facet in field_type.facets(field).items():
        part = Reference(slot=spot.slot, type=facet.type, can_fail=fails, home=home, facet=facet.take)
        entries[(field.key, name.lower())] = Entry(reference=part, present=presenter(region), owner=field.id)
    return entries


def _shown_by(field_type: FieldType[Any], field: Field, region: Region) -> Any:
    return lambda value: field_type.present(value, field, region, Medium.PAGE)
