"""Proof: what is wrong or doubtful in a draft, with its place and a remedy."""

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from codexa.core.definition.parts import Block, Field
from codexa.core.errors import Span
from codexa.core.fields import type_of
from codexa.core.formula.check import Severity
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class Finding:
    """Something wrong (an error stops publishing) or doubtful.

    `block` is the id of the block it is about, None for the form; `setting` the setting; `span` the place in a formula.
    """

    severity: Severity
    code: str
    message: str
    remedy: str
    block: str | None = None
    setting: str | None = None
    span: Span | None = None


def proof(program: Program) -> tuple[Finding, ...]:
    """Return every finding, errors first, each group in the order of the outline."""
    found = [*_of_form(program), *_of_blocks(program), *_of_formulas(program), *_of_circles(program)]
    order = {block.id: index for index, block in enumerate(program.form.blocks())}
    return tuple(sorted(found, key=lambda each: (each.severity is Severity.DOUBT, order.get(each.block or "", -1))))


def _error(code: str, message: str, remedy: str, block: Block | None = None, setting: str | None = None) -> Finding:
    return Finding(
        severity=Severity.ERROR,
        code=code,
        message=message,
        remedy=remedy,
        block=block.id if block else None,
        setting=setting,
    )


def _of_form(program: Program) -> Iterator[Finding]:
    if not program.answered_places:
        yield _error("no_fields", "The form asks nothing yet.", "Add a field in Compose.")
    if not program.form.title.strip():
        yield Finding(
            severity=Severity.DOUBT,
            code="no_title",
            message="Visitors see no title above the form.",
            remedy="Click the line above the first page and write one.",
        )


def _of_blocks(program: Program) -> Iterator[Finding]:
    for block in program.form.blocks():
        for setting, message, remedy in type_of(block).findings(block):
            yield _error(f"{setting}_wrong", message, remedy, block, setting)
        if isinstance(block, Field) and not block.label.strip():
            message = "The field has no label; screen readers can't name it."
            yield _error("no_label", message, "Write one.", block, "label")
    yield from _double_keys(program)


def _double_keys(program: Program) -> Iterator[Finding]:
    numbers, by_key = program.form.numbers(), defaultdict(list)
    for block in program.form.blocks():
        by_key[block.key].append(block)
    for key, blocks in by_key.items():
        for block in blocks[1:]:
            message = f"{numbers[blocks[0].id]} has the key {key} too; formulas see only that one."
            yield _error("double_key", message, "Give one of them another key.", block, "key")


def _of_formulas(program: Program) -> Iterator[Finding]:
    for formula in program.formulas:
        for each in formula.compiled.findings:
            yield Finding(
                severity=each.severity,
                code=each.code,
                message=each.message,
                remedy="Correct the formula in the margin.",
                block=formula.block.id,
                setting=formula.setting,
                span=each.span,
            )


def _of_circles(program: Program) -> Iterator[Finding]:
    numbers = program.form.numbers()
    for circle in program.circles:
        names = [f"{numbers[block.id]} {getattr(block, 'label', '') or block.key}" for block in circle]
        if len(names) == 1:
            message = f"{names[0]} depends on itself."
        else:
            message = f"These depend on each other in a circle: {' → '.join([*names, names[0]])}."
        yield _error("circle", message, "Take one of them out of the other's formula.", circle[0], "shown")
