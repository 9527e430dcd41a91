"""Between tables and forms: a form that fills a table, and a table that a form's responses can be kept in."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.parts import Field
from codexa.core.definition.rich_text import plain
from codexa.core.fields import field_type_of
from codexa.core.fields.calculated import CalculatedField
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.form import FORMAT, Form
from codexa.core.form.known_tables import KnownTable, label_of
from codexa.core.tables.table import COLUMN_TYPES, Table, known_table

# What a column is of which no table has the type: what a record of it can be read again as.
_KEPT_AS = {
    "single_choice": "dropdown",
    "rating": "number",
    "scale": "number",
    "slider": "number",
    "quantity": "number",
    "name": "short_text",
    "address": "long_text",
    "consent": "yes_no",
    "hidden": "short_text",
}
_OF_FORMAT = {"number": "number", "percent": "number", "money": "money", "date": "date", "text": "long_text"}
# What hangs on other answers, or on what is sold, is the form's.
_NOT_IN_COLUMN = {
    "shown", "default", "default_follows", "checks", "keep_when_hidden", "personal", "width", "fitting", "earliest",
    "latest", "price", "shown_as", "ordered_by", "descending", "places", "taking", "left_shown", "picture",
    "taken_from",
}  # fmt: skip
_NOT_IN_OPTION = frozenset({"shown", "locked", "price"})


def form_of_table(table_id: str, table: Table, others: Mapping[str, KnownTable]) -> dict[str, Any]:
    """Return the document of a form that asks for a table's columns and keeps each answer there.

    What is worked out in the table is not asked; `others` are the tables whose records it names, by id.
    """
    asked = [each for each in table.columns.values() if field_type_of(each).answered]
    named = {each.table for each in asked if isinstance(each, RecordChoiceField)}
    known = {table_id: known_table(table_id, table)} | {each: others[each] for each in sorted(named) if each in others}
    definition = table.definition
    step = {
        "id": "kept",
        "table": table_id,
        "cells": [{"column": each.id, "value": each.key} for each in asked],
    }
    return {
        "format": FORMAT,
        "name": definition.name,
        "title": definition.name,
        "locale": definition.locale,
        "currency": definition.currency,
        "time_zone": definition.time_zone,
        "tables": [each.model_dump(mode="json") for each in known.values()],
        "pages": [{"id": "asked", "title": "", "blocks": [each.model_dump(mode="json") for each in asked]}],
        "follow_ups": [{"kind": "record", "id": "keeps", "name": f"Kept in {definition.name}"[:500], "steps": [step]}],
    }


@dataclass(frozen=True, kw_only=True, slots=True)
class TableOfForm:
    """The definition of a table for a form's responses, and the labels of what it has no column for."""

    definition: dict[str, Any]
    left_out: Sequence[str]


def table_of_form(form: Form) -> TableOfForm:
    """Return the table that a form's responses can be kept in: a column for each field outside rows."""
    columns: list[dict[str, Any]] = []
    left_out = []
    for block, kind in form.blocks_and_kinds():
        if kind is not None or not isinstance(block, Field):
            continue
        column = _column(block)
        if column is None:
            left_out.append(label_of(block))
        else:
            columns.append(column)
    left_out += [plain(repeat.label) or repeat.key for repeat in form.repeats()]
    known = {"locale": form.locale, "currency": form.currency, "time_zone": form.time_zone}
    return TableOfForm(definition={"name": form.name, **known, "columns": columns}, left_out=left_out)


def _column(block: Field) -> dict[str, Any] | None:
    kept = block.model_dump(mode="json", exclude=_NOT_IN_COLUMN)
    if isinstance(block, CalculatedField):
        kind = _OF_FORMAT[block.format]
        kept = {"type": kind} | ({"decimals": block.decimals} if kind == "number" else {})
    elif block.type in _KEPT_AS:
        kept = {"type": _KEPT_AS[block.type]} | ({"options": kept["options"]} if "options" in kept else {})
    elif block.type not in COLUMN_TYPES:
        return None
    for option in kept.get("options", ()):
        for name in _NOT_IN_OPTION & option.keys():
            del option[name]
    # A label with inserted values says nothing in a table; conditions on other answers mean nothing there.
    label = plain(block.label)
    named = {"id": block.id, "key": block.key, "label": block.key if "{" in label else label or block.key}
    required = getattr(block, "required", "")
    return {
        **kept,
        **named,
        "locked": "",
        "part": "",
        "required": "TRUE" if required.upper() == "TRUE" else "",
        "help": "",
    } | ({"offered": ""} if "options" in kept and kept["type"] == block.type else {})
