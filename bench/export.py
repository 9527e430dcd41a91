"""200,000 responses of a form of 40 fields as CSV, beside a COPY that writes the very same file; 100,000 as a workbook.

The COPY has the same cells in the same order: times by the form's clock, parts of names and addresses put together,
codes joined, formulas defused. That the files are equal is looked at each time. Memory is what the process grows by
from a tenth of the rows to all of them.
"""

import csv
import io
import multiprocessing
import os
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any
from uuid import UUID

import psycopg
from psycopg import sql

from bench.client import Client
from bench.measuring import report
from bench.responses import accepted, copy_in, fill, form_of_forty
from bench.running import Running, running_with
from codexa.core.definition.parts import Field
from codexa.core.fields.field_type import Medium
from codexa.core.form.form import Form
from codexa.core.responses.conditions import Condition, Filter
from codexa.services.editions import Editions
from codexa.services.of_team import Team
from codexa.services.response_csv import CsvFashion
from codexa.services.response_set.exporting import Export
from codexa.services.response_set.looking import Look
from codexa.store.database import Database

_ALL = int(os.environ.get("CODEXA_BENCH_EXPORT", "200000"))
_ROUNDS = 5
# Each cell is worked out once: OFFSET keeps the planner from putting it wherever it is named.
_LINES = """COPY (SELECT number, received, edition, {cells} FROM (
        SELECT number, to_char(received_at, 'YYYY-MM-DD"T"HH24:MI:SSTZH:TZM') AS received, edition, {texts}
        FROM response WHERE form_id = {form} ORDER BY received_at DESC, number DESC OFFSET 0
    ) AS found) TO STDOUT (FORMAT csv, FORCE_QUOTE *)"""
_DEFUSED = r"""CASE WHEN {text} ~ '^[\s]*[=+@-]' AND {text} !~ '^(-?\d+([.,]\d+)?|\+\d[\d ]*)$' THEN '''' || {text}
    ELSE {text} END"""
_NAME = "concat_ws(' ', {kept} ->> 'full', {kept} ->> 'first', {kept} ->> 'last')"
_ADDRESS = """concat_ws(', ', {kept} ->> 'street', {kept} ->> 'extra',
    nullif(concat_ws(' ', {kept} ->> 'postal_code', {kept} ->> 'town'), ''), {kept} ->> 'country')"""
_CODES = "(SELECT string_agg(code, ', ') FROM jsonb_array_elements_text({kept}) AS code)"
_PARTS = {"name": _NAME, "address": _ADDRESS, "several_choices": _CODES, "yes_no": "upper(answers ->> {id})"}
_WRITTEN = ("name", "email", "phone", "short_text", "long_text", "address")


def _text(field: Field) -> sql.Composable:
    block = sql.Literal(field.id)
    kept = sql.SQL("(answers -> {})").format(block)
    return sql.SQL(_PARTS.get(field.type, "answers ->> {id}")).format(kept=kept, id=block)


def _cell(field: Field) -> sql.Composable:
    text = sql.Identifier(field.id)
    return sql.SQL(_DEFUSED).format(text=text) if field.type in _WRITTEN else text


def _copied(connection: psycopg.Connection[Any], form: Form, form_id: UUID) -> bytes:
    fields = [each for each in form.columns() if isinstance(each, Field)]
    cells = sql.SQL(", ").join(map(_cell, fields))
    texts = sql.SQL(", ").join(sql.SQL("{} AS {}").format(_text(each), sql.Identifier(each.id)) for each in fields)
    statement = sql.SQL(_LINES).format(cells=cells, texts=texts, form=sql.Literal(form_id))
    with connection.cursor() as cursor, cursor.copy(statement) as rows:
        return b"".join(rows)


def _timed(work: Callable[[], bytes]) -> tuple[float, bytes]:
    began = time.perf_counter()
    made = work()
    return time.perf_counter() - began, made


def _rates(running: Running, form: Form) -> bool:
    client, address = Client(running.port), f"/api/forms/{running.form}/responses.csv"
    copying, exporting = [], []
    with psycopg.connect(running.database) as connection:
        connection.execute("SELECT set_config('TimeZone', %s, false)", (form.time_zone,))
        for _ in range(_ROUNDS):
            seconds, copied = _timed(lambda: _copied(connection, form, running.form))
            copying.append(seconds)
            seconds, exported = _timed(lambda: client.read(address))
            exporting.append(seconds)
    if _rows(exported)[1:] != _rows(copied):
        raise RuntimeError("the COPY writes another file")
    copy, export = (_ALL / statistics.median(each) for each in (copying, exporting))
    report("copy_csv", copy, "rows a second", None)
    report("export_csv", export, "rows a second", None)
    return report("export_csv_of_copy", export / copy, "of the rate of COPY", 0.3)


def _rows(content: bytes) -> list[list[str]]:
    return list(csv.reader(io.StringIO(content.decode())))


def _write(kind: str, database: str, ids: tuple[UUID, UUID], rows: int, told: Any) -> None:
    """Write an export of the newest rows in this process, and tell how much memory it came to, in MB."""
    form, team = ids
    known = Database(database, 4, statement_seconds=120)
    look = Look(filter=Filter(conditions=(Condition(column="response.number", how="at_most", values=(str(rows),)),)))
    export = Export(known.connection, Editions(known.connection), who=Team(team), form=form, look=look, tries=False)
    with tempfile.NamedTemporaryFile() as file:
        if kind == "xlsx":
            export.as_whole_workbook(Path(file.name), Medium.PAGE)
        else:
            for line in export.as_csv(CsvFashion()):
                file.write(line.encode())
    known.close()
    told.send(_most_memory())


def _most_memory() -> float:
    """Return how much memory this process had at most, in MB."""
    status = Path("/proc/self/status").read_text(encoding="ascii")
    return int(status.partition("VmHWM:")[2].split()[0]) / 1024


def _grown(kind: str, running: Running, team: UUID, rows: int) -> float:
    """Return by how many MB a process grows from a tenth of the rows to all of them."""
    spawn = multiprocessing.get_context("spawn")
    sizes = []
    for count in (rows // 10, rows):
        heard, told = spawn.Pipe(duplex=False)
        writing = spawn.Process(target=_write, args=(kind, running.database, (running.form, team), count, told))
        writing.start()
        sizes.append(heard.recv())
        writing.join()
    return float(sizes[1] - sizes[0])


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    form = form_of_forty()
    with running_with(form) as running:
        copy_in(running.database, running.form, accepted(form), _ALL)
        fill(running)
        met = _rates(running, form)
        with psycopg.connect(running.database) as connection:
            team = connection.execute("SELECT team_id FROM form WHERE id = %s", (running.form,)).fetchone()
            assert team is not None
        met &= report("csv_memory", _grown("csv", running, team[0], _ALL), "MB more", 20, at_least=False)
        met &= report("workbook_memory", _grown("xlsx", running, team[0], _ALL // 2), "MB more", 20, at_least=False)
    return met
