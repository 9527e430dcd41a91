"""What a form names of tables that they do not have any more, by what they are now."""

from collections import defaultdict
from collections.abc import Iterator, Mapping

from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.follow_ups import RecordFollowUp
from codexa.core.form.known_tables import KnownTable, label_of
from codexa.core.program.findings import Finding, error
from codexa.core.program.fitting import Fitting
from codexa.core.program.program import Program
from codexa.core.program.record_parts import Shown

Named = dict[tuple[str, str], set[str]]  # by owner and table, the ids of columns


def table_drift(program: Program, now: Mapping[str, KnownTable]) -> Iterator[Finding]:
    """Yield what of the form's tables is gone or of another type than the form takes it for, where it is named.

    `now` are the team's tables as they are, by id; visitors of an edition are not harmed by it: what is gone is blank.
    """
    for (owner, table_id), columns in _named(program).items():
        known, table = program.form.table(table_id), now.get(table_id)
        if known is None:
            continue
        if table is None:
            message = f"The table {known.name} is not there any more, or is not this team's."
            yield error("table_gone", message, "Choose another table.", owner, "table")
            continue
        for column_id in sorted(columns & known.fields.keys()):
            before, after = known.fields[column_id], table.fields.get(column_id)
            label = label_of(before)
            if after is None:
                message = f"{known.name} has no column {label} any more, which is named here."
                yield error(
                    "column_gone", message, "Take the table over as it is now, and name another.", owner, "table"
                )
            elif after.type != before.type or after.key != before.key:
                message = f"The column {label} of {known.name} is another one now."
                yield error("column_changed", message, "Take the table over as it is now.", owner, "table")


def _named(program: Program) -> Named:
    found: Named = defaultdict(set)
    for place in program.places.values():
        block = place.block
        if isinstance(block, RecordChoiceField) and block.table:
            _of_block(program, block, found)
    for follow_up in program.form.follow_ups:
        if isinstance(follow_up, RecordFollowUp):
            for step in follow_up.steps:
                cells = {each.column for each in step.cells}
                found[follow_up.id, step.table] |= cells | {*step.found_by, step.linked_by}
    return found


def _of_block(program: Program, block: RecordChoiceField, found: Named) -> None:
    formula = program.formula(block.id, "fitting")
    shown = {each.id for each in Shown(form=program.form, block=block).columns()}
    filtered = frozenset() if formula is None else Fitting(formula).columns()
    found[block.id, block.table] |= shown | filtered | {block.ordered_by, block.places, block.picture}
    for path in program.layout.asked_parts.get(block.id, ()):
        table = program.form.table(block.table)
        for column_id in path:
            if table is None:
                break
            found[block.id, table.id].add(column_id)
            column = table.fields.get(column_id)
            table = program.form.table(column.table) if isinstance(column, RecordChoiceField) else None
