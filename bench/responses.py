"""A million responses of a form of 40 fields: pages, orders, filters, search, charts; the same with fifty.

The data are results of the real `accept`, told apart by when they came, copied into the database; the ledger is filled
and indexed by the program itself. Needs some 6 GB of disk for as long as it runs.
"""

import base64
import json
import os
import random
import statistics
import time
import urllib.parse
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

import psycopg
from psycopg import sql
from psycopg.types.json import Jsonb

from bench.client import Client
from bench.measuring import report
from bench.running import Running, running_with
from codexa.core.form.form import Form, read_form
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.samples import sample_answers
from codexa.services.context import context_of
from codexa.services.editions import Editions
from codexa.services.response_set import filling
from codexa.store import ledgers
from codexa.store.database import Database

_ALL = int(os.environ.get("CODEXA_BENCH_RESPONSES", "1000000"))
_KINDS, _FEW, _ROUNDS = 2_000, 50, 20
_COPY = """COPY response (form_id, number, edition, received_at, answers, computed, path, idempotency_key,
    content_digest, told, came) FROM STDIN"""
_SIZES = """
SELECT relname AS name, pg_relation_size(pg_class.oid) AS bytes FROM pg_class
JOIN pg_namespace ON pg_namespace.oid = relnamespace
WHERE nspname = 'ledgers' OR (nspname = 'public' AND relname LIKE 'response%') ORDER BY 2 DESC
"""
_COLUMNS = 16  # that the workbench asks for at first
_TEXTS = ("name", "email", "phone", "short_text", "long_text", "address")


def form_of_forty() -> Form:
    """Return a form of forty fields: texts, numbers, money, choices, ratings, days, times, yes or no."""
    blocks: list[dict[str, Any]] = []
    for at in range(40):
        kind = (*_TEXTS, "number", "money", "single_choice", "several_choices", "rating", "scale", "date", "time",
                "yes_no", "dropdown")[at % 16]  # fmt: skip
        block: dict[str, Any] = {"id": f"f{at}", "type": kind, "key": f"f{at}", "label": f"Field {at}"}
        if kind in ("single_choice", "several_choices", "dropdown"):
            block["options"] = [{"id": f"o{n}", "code": f"c{n}", "label": f"Choice {n}"} for n in range(8)]
        if kind == "number":
            block |= {"minimum": "0", "maximum": "5000"}
        blocks.append(block)
    return read_form(
        {"name": "Large set", "title": "Large set", "pages": [{"id": "page1", "title": "", "blocks": blocks}]}
    )


def accepted(form: Form) -> list[Accepted]:
    """Return so many kinds of responses, accepted."""
    program, chance = compile_form(form), random.Random("responses")
    found: list[Accepted] = []
    while len(found) < _KINDS:
        context = context_of(form)
        result = accept(program, sample_answers(program, chance, context), context)
        if isinstance(result, Accepted):
            found.append(result)
    return found


def copy_in(database: str, form: UUID, kinds: list[Accepted], count: int, first: int = 1) -> None:
    """Copy so many responses into the database, of these kinds, half a minute apart."""
    now = datetime.now(UTC)
    told = Jsonb(kinds[0].state.context.as_json())
    came = Jsonb({"way": "link", "page": ""})
    made = [(Jsonb(each.answers), Jsonb(each.computed), list(each.path)) for each in kinds]
    chance = random.Random(7)
    with psycopg.connect(database) as connection:
        with connection.cursor() as cursor, cursor.copy(_COPY) as rows:
            for at in range(count):
                number = first + at
                answers, computed, path = made[chance.randrange(len(made))]
                came_at = now - timedelta(minutes=(count - at) * 0.5)
                rows.write_row((form, number, 1, came_at, answers, computed, path, f"k{number}", b"", told, came))
        connection.execute("UPDATE response_counter SET last_number = %s WHERE form_id = %s", (first + count - 1, form))


def fill(running: Running) -> float:
    """Fill the ledger, and return how many seconds that took."""
    database = Database(running.database, 4, statement_seconds=120)
    began = time.perf_counter()
    filling.fill(database.connection, Editions(database.connection), running.form, running.database)
    seconds = time.perf_counter() - began
    database.close()
    return seconds


def _index_what_is_wanted(running: Running) -> None:
    """Do what the worker does once somebody has filtered or sorted by a column."""
    filling.index(running.database, running.form)


def _p95(client: Client, path: str, rounds: int = _ROUNDS) -> float:
    times = []
    for _ in range(rounds):
        began = time.perf_counter()
        client.ask("GET", path)
        times.append(1000 * (time.perf_counter() - began))
    return statistics.quantiles(times, n=20)[-1]


def _look(running: Running, *conditions: list[str], **more: str) -> str:
    shown = ",".join(f"f{at}" for at in range(_COLUMNS))
    asked = {"where": json.dumps(conditions), "limit": "50", "columns": shown}
    query = urllib.parse.urlencode({**asked, **more})
    return f"/api/forms/{running.form}/responses?{query}"


def _chart(running: Running, column: str, by: str = "") -> str:
    return f"/api/forms/{running.form}/responses/chart?{urllib.parse.urlencode({'column': column, 'by': by})}"


def _pages(running: Running) -> dict[str, str]:
    return {
        "first_page": _look(running),
        "sorted_by_number": _look(running, sort="-f6"),
        "sorted_by_choice_then_number": _look(running, sort="f8,-f6"),
        "sorted_by_text": _look(running, sort="f0"),
        "filtered_selective": _look(running, ["f6", "between", "4990", "5000"]),
        "filtered_unselective": _look(running, ["f8", "any_of", "c0", "c1", "c2"]),
        "filtered_two": _look(running, ["f8", "any_of", "c3"], ["f6", "at_least", "4000"]),
        "filtered_days": _look(running, ["response.received", "last_days", "3"]),
        "filtered_text": _look(running, ["f1", "contains", "mira"]),
        "searched_word": _look(running, words='"lindqvist"'),
        "searched_part": _look(running, words="lindq"),
        "searched_two": _look(running, words="mira lindqvist"),
    }


def _charts(running: Running) -> dict[str, tuple[str, float]]:
    return {
        "chart_choice": (_chart(running, "f8"), 1000),
        "chart_ticks": (_chart(running, "f9"), 1000),
        "chart_number": (_chart(running, "f6"), 1000),
        "chart_rating": (_chart(running, "f10"), 1000),
        "chart_days": (_chart(running, "response.received"), 1000),
        "compared_by_choice": (_chart(running, "f10", "f8"), 1500),
        "crossed": (_chart(running, "f15", "f8"), 1500),
    }


def _page_10_000(client: Client, running: Running) -> bool:
    """The page that begins half a million responses down, by its place in the order."""
    met = True
    with psycopg.connect(running.database) as connection:
        row = connection.execute(
            "SELECT number, received_at::text FROM response ORDER BY received_at DESC OFFSET %s LIMIT 1", (_ALL // 2,)
        ).fetchone()
        assert row is not None
    place = base64.urlsafe_b64encode(json.dumps([row[0], row[1]]).encode()).decode()
    met &= report("page_10000", _p95(client, _look(running, after=place)), "ms, p95", 300, at_least=False)
    return met


def _everything(client: Client, running: Running, most: float | None) -> bool:
    """Measure all; with `most` that is what everything may take."""
    met = True
    asked = {name: (path, 300.0) for name, path in _pages(running).items()} | _charts(running)
    for path, _ in asked.values():
        client.ask("GET", path)
    _index_what_is_wanted(running)
    suffix = "" if most is None else f"_of_{_FEW}"
    for name, (path, target) in asked.items():
        value = _p95(client, path)
        met &= report(f"{name}{suffix}", value, "ms, p95", most or target, at_least=False)
    return met


def _tell_sizes(running: Running) -> None:
    with psycopg.connect(running.database) as connection:
        ledger = ledgers.Ledger(form=running.form, columns={}, upto=0, wanted=())
        for name, size in connection.execute(sql.SQL(_SIZES)).fetchall():
            short = str(name).replace(ledger.form.hex, "form")
            report(f"bytes {short}", size / _ALL, "bytes a response", None)


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    form = form_of_forty()
    kinds = accepted(form)
    with running_with(form) as running:
        client = Client(running.port)
        copy_in(running.database, running.form, kinds, _FEW)
        met = _everything(client, running, 50.0)
        copy_in(running.database, running.form, kinds, _ALL - _FEW, first=_FEW + 1)
        report("fill_ledger", _ALL / fill(running), "responses a second", None)
        with psycopg.connect(running.database, autocommit=True) as connection:
            connection.execute("VACUUM ANALYZE response")
        met &= _everything(client, running, None)
        met &= _page_10_000(client, running)
        _tell_sizes(running)
    return met
