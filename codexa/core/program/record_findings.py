"""What is wrong where a form offers records of a table: what it names that the table does not have."""

from collections.abc import Iterator

from codexa.core.fields import field_type_of
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.known_tables import KnownTable
from codexa.core.formula.types import Kind
from codexa.core.look_ups import MOST_TRIED
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.fitting import Fitting
from codexa.core.program.program import Program
from codexa.core.program.record_parts import RecordPart, RecordsPart, Shown


def record_findings(program: Program) -> Iterator[Finding]:
    """Yield the findings of all record choices, by what the form knows of their tables."""
    for place in program.places.values():
        block = place.block
        if not isinstance(block, RecordChoiceField) or not block.table:
            continue
        table = program.form.table(block.table)
        if table is None:
            message = "The form does not know the table that these records are of."
            yield error("no_such_table", message, "Choose the table again.", block.id, "table")
        else:
            yield from _of_block(program, block, table)
    yield from _of_other_currencies(program)


def _of_block(program: Program, block: RecordChoiceField, table: KnownTable) -> Iterator[Finding]:
    shown = Shown(form=program.form, block=block)
    for name in shown.names():
        if name not in table.by_key:
            message = f"What is shown names {{{name}}}, and {table.name} has no such column."
            yield error("unknown_name", message, "Correct the name.", block.id, "shown_as")
    if block.ordered_by and block.ordered_by not in table.fields:
        message = f"The records are ordered by a column that {table.name} does not have any more."
        yield error("no_such_column", message, "Choose another one.", block.id, "ordered_by")
    picture = table.fields.get(block.picture)
    if block.picture and (picture is None or field_type_of(picture).value_type(picture).kind is not Kind.FILES):
        message = f"The picture is to stand in a column of files of {table.name}."
        yield error("no_such_column", message, "Choose another one, or none.", block.id, "picture")
    yield from _of_places(program, block, table)
    formula = program.formula(block.id, "fitting")
    if formula is not None and formula.compiled.typed is not None and Fitting(formula).tried_one_by_one:
        message = f"A part of this filter is worked out for each record by itself, for at most {MOST_TRIED:,} of them."
        remedy = "Compare a column with an answer where you can; tables that large are slow otherwise."
        yield doubt("tried_one_by_one", message, remedy, block.id, "fitting")


def _of_places(program: Program, block: RecordChoiceField, table: KnownTable) -> Iterator[Finding]:
    if not block.places:
        if block.taking:
            message = "It is said how many each response takes, and not how many there are."
            yield doubt("no_places", message, "Choose the column that says so.", block.id, "places")
        return
    column = table.fields.get(block.places)
    if column is None or field_type_of(column).value_type(column).kind is not Kind.NUMBER:
        message = f"How many there are of each is to stand in a column of numbers of {table.name}."
        yield error("no_such_column", message, "Choose another one.", block.id, "places")
    taking = program.formula(block.id, "taking")
    if taking is not None and taking.compiled.typed is not None and taking.compiled.type.kind is not Kind.NUMBER:
        message = f"How many a response takes is a number, and this gives {taking.compiled.type.name}."
        yield error("wrong_type", message, "Take a number, or work one out.", block.id, "taking")


def _of_other_currencies(program: Program) -> Iterator[Finding]:
    own = program.form.currency
    found = set()
    for formula in program.formulas:
        for reference in formula.compiled.reads:
            facet = reference.facet.part if isinstance(reference.facet, RecordsPart) else reference.facet
            if isinstance(facet, RecordPart) and reference.type.kind is Kind.MONEY and facet.block in program.places:
                found.add((facet.block, facet.column.key))
    for block_id, key in sorted(found):
        block = program.places[block_id].block
        table = program.form.table(block.table) if isinstance(block, RecordChoiceField) else None
        if table is not None and table.currency != own:
            message = f"{key} is in {table.currency}, and the form calculates in {own}: the number is taken as it is."
            yield doubt("other_currency", message, "Let both have one currency.", block_id, "table")
