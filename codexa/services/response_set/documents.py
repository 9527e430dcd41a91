"""Responses as programs read them: answers, figures and the order by key, as they are kept; and the schema of that."""

from collections.abc import Collection
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.definition.parts import Field, Repeat
from codexa.core.fields import field_type_of
from codexa.core.form.form import Form
from codexa.core.program.order_names import ORDER
from codexa.services.editions import Editions
from codexa.services.response_columns import fields_of
from codexa.store.responses import ResponseRow


def document(
    editions: Editions, form_id: UUID, response: ResponseRow, only: Collection[str] | None = None
) -> dict[str, Any]:
    """Return a response by the keys of its edition; one of an edition that can't be read any more has no answers.

    With `only`, the answers and figures of these columns.
    """
    form = editions.readable(form_id, response.edition)
    moment = response.received_at if form is None else response.received_at.astimezone(ZoneInfo(form.time_zone))
    return {
        "number": response.number,
        "edition": response.edition,
        "received": moment.isoformat(timespec="seconds"),
        "stage": response.stage,
        "payment": response.payment,
        "decision": response.decision,
        "at_part": response.at_part,
        "booking": response.booking,
        "status": response.status,
        "tags": response.tags,
        "practice": response.test,
        "answers": {} if form is None else _answers(form, response.computed | response.answers, only),
        "figures": {
            each.key: response.computed.get(each.id)
            for each in (form.figures if form is not None else ())
            if only is None or each.id in only
        },
        "order": response.computed.get(ORDER),
    }


def _answers(form: Form, stored: dict[str, Any], only: Collection[str] | None) -> dict[str, Any]:
    return {
        block.key: _rows(block, stored.get(block.id)) if isinstance(block, Repeat) else stored.get(block.id)
        for block in form.columns()
        if only is None or block.id in only
    }


def _rows(repeat: Repeat, stored: Any) -> list[dict[str, Any]]:
    kinds = {kind.id: kind for kind in repeat.kinds}
    return [
        {"kind": kind.key} | {field.key: row["values"].get(field.id) for field in fields_of(kind)}
        for row in stored or ()
        if (kind := kinds.get(row["kind"])) is not None
    ]


def schema(form: Form) -> dict[str, Any]:
    """Return the JSON Schema (2020-12) of the answers of an edition; each may be blank."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": form.name,
        "type": "object",
        "properties": {
            block.key: _rows_schema(block) if isinstance(block, Repeat) else _blank_or(block)
            for block in form.columns()
        },
        "additionalProperties": False,
    }


def _blank_or(field: Field) -> dict[str, Any]:
    return {"anyOf": [{"type": "null"}, field_type_of(field).answer_schema(field)]}


def _rows_schema(repeat: Repeat) -> dict[str, Any]:
    kinds = [
        {
            "type": "object",
            "properties": {"kind": {"const": kind.key}} | {field.key: _blank_or(field) for field in fields_of(kind)},
            "required": ["kind"],
            "additionalProperties": False,
        }
        for kind in repeat.kinds
    ]
    return {"type": "array", "items": {"anyOf": kinds}}
