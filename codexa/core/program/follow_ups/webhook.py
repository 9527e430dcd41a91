"""A webhook: the response as JSON, by keys, for another system."""

from collections.abc import Iterator
from typing import Any

from codexa.core.definition.parts import Field
from codexa.core.form.follow_ups import WebhookFollowUp
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import Row, State
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.findings import Finding, error
from codexa.core.program.follow_ups.kind import FollowUpKind
from codexa.core.program.order import OrderTotals, dump_order
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.program import Program


class WebhookKind(FollowUpKind[WebhookFollowUp]):
    """Webhook."""

    kind_name = "webhook"
    title = "Webhook"

    def content(self, state: State, follow_up: WebhookFollowUp) -> dict[str, Any] | None:
        """The address and the body; nothing without an address."""
        if not follow_up.address:
            return None
        return {"address": follow_up.address, "body": response_by_keys(state) | {"event": follow_up.on}}

    def told(self, content: dict[str, Any]) -> str:
        """Where to."""
        return f"response to {content['address']}"

    def findings(self, program: Program, follow_up: WebhookFollowUp) -> Iterator[Finding]:
        """No address."""
        if not follow_up.address:
            message = "The webhook has no address."
            yield error("no_address", message, "Type where the other system takes it.", follow_up.id, "address")


def response_by_keys(state: State) -> dict[str, Any]:
    """Return a response as another system reads it: answers and figures by key, as they are kept."""
    program = state.program
    answers = {
        place.block.key: _rows(state, place) if isinstance(place, RepeatPlace) else _dumped(state, place)
        for place in program.top_places
        if isinstance(place, RepeatPlace) or isinstance(place.block, Field)
    }
    figures = {}
    for place in program.figures.values():
        value = state.at(place.value)
        known = value is not None and not isinstance(value, Failed)
        figures[place.figure.key] = kind_of(place.figure).dump(place.figure, value) if known else None
    order = state.order()
    ordered = {"order": dump_order(order, program.region)} if isinstance(order, OrderTotals) else {}
    return ordered | {
        "form": program.form.name,
        "number": state.context.number,
        "at": state.context.now.isoformat(),
        "answers": answers,
        "figures": figures,
    }


def _dumped(state: State, place: Place, row: Row | tuple[()] = ()) -> Any:
    value = state.value(place, row)
    if value is None or isinstance(value, Failed) or place.field_type is None:
        return None
    return place.field_type.dump(value)


def _rows(state: State, place: RepeatPlace) -> list[dict[str, Any]]:
    return [
        {
            "kind": state.kind_of(place, row).kind.key,
            **{
                each.block.key: _dumped(state, each, row)
                for each in state.kind_of(place, row).places
                if each.field_type
            },
        }
        for row in state.rows(place)
    ]
