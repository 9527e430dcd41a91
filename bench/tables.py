"""A table of 100,000 records: brought in from a file, searched by typing, sorted, scrolled to anywhere."""

import base64
import json
import os
import random
import statistics
import time
import urllib.parse
from uuid import UUID

from bench import record_choices
from bench.client import Client
from bench.engine_form import large_form
from bench.measuring import report
from bench.running import running_with
from codexa.services.tables import importing
from codexa.store.database import Database

_ALL = int(os.environ.get("CODEXA_BENCH_RECORDS", "100000"))
_ROUNDS = 30
_NAMES = ("Nova", "Lyra", "Vega", "Altair", "Mira", "Deneb", "Rigel", "Atria")
_FIELDS = ("the Ferry", "the Lantern", "the Heron", "the Millwheel", "the Fox", "the Net")


def _file() -> bytes:
    chance = random.Random("records")
    lines = ["Object;Field;Magnitude;Kind;Seen"]
    lines += [
        f"{chance.choice(_NAMES)} {at};{chance.choice(_FIELDS)};{chance.randint(10, 150) / 10};"
        f"{chance.choice(('galaxy', 'nebula', 'cluster'))};20{chance.randint(10, 25)}-0{chance.randint(1, 9)}-11"
        for at in range(_ALL)
    ]
    return "\n".join(lines).encode()


def _p95(client: Client, table: str, *asked: dict[str, str]) -> float:
    """Return the 95th percentile of milliseconds, each query asked in turn."""
    times = []
    for at in range(_ROUNDS):
        address = f"/api/tables/{table}/records?{urllib.parse.urlencode(asked[at % len(asked)])}"
        began = time.perf_counter()
        client.ask("GET", address)
        times.append(1000 * (time.perf_counter() - began))
    return statistics.quantiles(times, n=20)[-1]


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(large_form(5, rows=False)) as running:
        client = Client(running.port)
        file = base64.b64encode(_file()).decode()
        table = client.ask("POST", "/api/tables/from-file", {"name": "Objects", "file": file})["id"]
        taking = client.ask("GET", f"/api/tables/{table}/import")["imports"][0]["id"]
        database = Database(running.database, 4, statement_seconds=120)
        began = time.perf_counter()
        importing.carry_out(database.connection, UUID(taking))
        met = report("import_records", time.perf_counter() - began, "s for all", 30, at_least=False)
        with database.connection() as connection:
            connection.execute("ANALYZE record")
        words = ({"words": "heron vega 12"}, {"words": "ltair 77"}, {"words": "lyra net neb"}, {"words": "rigel 9000"})
        met &= report("search_records", _p95(client, table, *words), "ms, p95", 100, at_least=False)
        places = tuple({"first": str(place), "limit": "100"} for place in (0, _ALL // 2, _ALL - 100))
        met &= report("scroll_records", _p95(client, table, *places), "ms, p95", 100, at_least=False)
        sorts = ({"sort": "c3"}, {"sort": "-c1"}, {"sort": "c5"})
        met &= report("sort_records", _p95(client, table, *sorts), "ms, p95", None)
        wheres: tuple[tuple[str, ...], ...] = (
            ("c1", "contains", "vega 12"),
            ("c3", "between", "9", "12"),
            ("c5", "at_least", "2024-06-01"),
        )
        filters = tuple({"where": json.dumps([where])} for where in wheres)
        met &= report("filter_records", _p95(client, table, *filters), "ms, p95", None)
        known = client.ask("GET", f"/api/tables/{table}")["known"]
        met &= record_choices.measure(database, table, known)
        database.close()
    return met
