"""Forms that offer records of a large table: what their lists, their searches, and working them out take."""

import statistics
import time
from collections.abc import Callable
from dataclasses import replace
from typing import Any
from uuid import UUID

from bench.measuring import report
from codexa.core.form.form import read_form
from codexa.core.look_ups import Found, LookUp
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.program import Program
from codexa.core.program.record_offers import found_by_words
from codexa.services.context import context_of
from codexa.services.tables.looking_up import KeptTables
from codexa.store.database import Connection, Database
from codexa.store.look_ups import Whose

_ROUNDS = 40
_FILTERS = (
    "record.field = where",
    'AND(record.field = where, record.kind = "galaxy")',
    "AND(record.kind = what, record.magnitude <= faint)",
    'OR(record.kind = "nebula", record.kind = "cluster")',
    "record.seen >= DATE(2024, 6, 1)",
)
_COLUMNS = ("object", "field", "magnitude", "kind")


class _Timed:
    """Tables that tell how long they took to answer."""

    def __init__(self, tables: KeptTables) -> None:
        self._tables, self.seconds = tables, 0.0

    def look_up(self, asked: LookUp) -> Found:
        """Return what is found."""
        began = time.perf_counter()
        try:
            return self._tables.look_up(asked)
        finally:
            self.seconds += time.perf_counter() - began


def _form(known: dict[str, Any]) -> dict[str, Any]:
    """Five choices with filters, and twenty values that are looked up in what is chosen."""
    blocks: list[dict[str, Any]] = [
        {"type": "short_text", "id": "where", "key": "where", "label": "Where"},
        {"type": "short_text", "id": "what", "key": "what", "label": "What"},
        {"type": "number", "id": "faint", "key": "faint", "label": "Faint", "decimals": 1},
    ]
    for at, fitting in enumerate(_FILTERS):
        blocks.append(
            {
                "type": "record_choice",
                "id": f"choice{at}",
                "key": f"choice{at}",
                "label": "Object",
                "table": known["id"],
                "fitting": fitting,
            }
        )
        blocks += [
            {
                "type": "calculated",
                "id": f"of{at}{column}",
                "key": f"of{at}{column}",
                "label": "Looked up",
                "formula": f'choice{at}.{column} & ""',
                "format": "text",
            }
            for column in _COLUMNS
        ]
    return {"name": "Objects", "tables": [known], "pages": [{"id": "p1", "blocks": blocks}]}


def _p95(times: list[float]) -> float:
    return 1000 * statistics.quantiles(times, n=20)[-1]


def measure(database: Database, table: str, known: dict[str, Any]) -> bool:
    """Measure and report; returns whether every target is met."""
    program = compile_form(read_form(_form(known)))
    with database.connection() as connection:
        ask = _asking(connection, table)
        listed = _answers(program, ask)
        met = _lists(program, ask, listed)
        return met & _worked_out(program, ask, listed) & _searches(program, ask)


def _asking(connection: Connection, table: str) -> Callable[[], KeptTables]:
    return lambda: KeptTables(lambda: connection, Whose(table=UUID(table)))


_BEGINNING = {"where": "the_heron", "what": "nebula", "faint": "9.5"}


def _answers(program: Program, ask: Callable[[], KeptTables]) -> dict[str, Any]:
    """Return answers that choose the first of each list."""
    state = evaluate(program, _BEGINNING, replace(context_of(program.form), tables=ask()))
    places = {each.block.id: state.at(each.found) for each in program.top_places if each.found is not None}
    return _BEGINNING | {block: str(offered.records[0].number) for block, offered in places.items()}


def _lists(program: Program, ask: Callable[[], KeptTables], answers: dict[str, Any]) -> bool:
    state = evaluate(program, answers, replace(context_of(program.form), tables=ask()))
    met = True
    for at, fitting in enumerate(_FILTERS):
        place = program.places[f"choice{at}"]
        assert place.found is not None
        asked = state.at(place.found).asked
        times = []
        for _ in range(_ROUNDS):
            began = time.perf_counter()
            ask().look_up(asked)
            times.append(time.perf_counter() - began)
        met &= report(f"filtered_list: {fitting}", _p95(times), "ms, p95", 50, at_least=False)
    return met


def _worked_out(program: Program, ask: Callable[[], KeptTables], answers: dict[str, Any]) -> bool:
    """What working out takes beside its queries, and how many of these there are."""
    times, most = [], 0
    for _ in range(_ROUNDS):
        tables = ask()
        timed = _Timed(tables)
        context = replace(context_of(program.form), tables=timed)
        began = time.perf_counter()
        evaluate(program, answers, context)
        times.append(time.perf_counter() - began - timed.seconds)
        most = max(most, tables.queries)
    met = report("evaluate_record_choices", _p95(times), "ms beside its queries, p95", 3, at_least=False)
    return met & report("queries_of_five_choices", most, "queries", len(_FILTERS), at_least=False)


def _searches(program: Program, ask: Callable[[], KeptTables]) -> bool:
    times = []
    for words in ("nova 12", "vega", "altair 77", "rigel 9000", "zz") * (_ROUNDS // 5):
        state = evaluate(program, _BEGINNING, replace(context_of(program.form), tables=ask()))
        began = time.perf_counter()
        found_by_words(state, "choice0", words)
        times.append(time.perf_counter() - began)
    return report("search_among_fitting", _p95(times), "ms, p95", 100, at_least=False)
