"""A fixed set of hostile requests, each alone against one worker: how long it is busy, and how much memory it takes.

What an editor could publish to slow visitors down is measured as what a visitor asks of it.
"""

import io
import json
import struct
import time
import urllib.error
import urllib.request
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from PIL import Image

from bench.measuring import report
from bench.running import Running, running_with
from codexa.core.form.form import Form, read_form

_MOST_SECONDS, _MOST_MEGABYTES = 0.3, 400
_ROWS = 500
_ROUNDS = 3


def _form() -> Form:
    """Return a form of all that makes answers costly: texts, files, and rows of formulas that look at all rows."""
    cells = [{"id": f"v{at}", "type": "number", "key": f"v{at}", "label": "V"} for at in range(4)]
    phone = {"id": "ph", "type": "phone", "key": "ph", "label": "Phone"}
    formulas = [
        "SUMIF(rows.v0, v0, rows.v1)",
        'COUNTIF(rows.v0, ">" & v1)',
        "SUM(rows.v1) / v0 + LARGE(rows.v2, 1)",
        "v0 ^ 2.5 + LN(v1 + 1)",
        'SUBSTITUTE(REPT("ab", 20000), "a", v0)',
    ]
    worked = [
        {"id": f"w{at}", "type": "calculated", "key": f"w{at}", "label": "W", "formula": each}
        for at, each in enumerate(formulas)
    ]
    kind = {"id": "k", "key": "k", "label": "Row", "blocks": [*cells, phone, *worked]}
    blocks = [
        {"id": "text", "type": "long_text", "key": "text", "label": "Text"},
        {"id": "name", "type": "name", "key": "name", "label": "Name"},
        {"id": "file", "type": "file_upload", "key": "file", "label": "File", "kinds": ["picture"], "megabytes": 20},
        {"id": "rows", "type": "repeat", "key": "rows", "label": "Rows", "kinds": [kind], "max_rows": _ROWS},
    ]
    heavy = f"SUM({', '.join(['LN(LEN(text) + 2) ^ 1.5'] * 300)})"
    figures = [{"kind": "formula", "id": f"f{at}", "key": f"f{at}", "formula": heavy} for at in range(8)]
    figures += [
        {"kind": "formula", "id": f"t{at}", "key": f"t{at}", "format": "text", "formula": 'PROPER(REPT("a ", 20000))'}
        for at in range(100)
    ]
    return read_form(
        {"name": "Hostile", "title": "Hostile", "pages": [{"id": "p", "blocks": blocks}], "figures": figures}
    )


def _rows(count: int) -> list[dict[str, Any]]:
    values = {"v0": "7", "v1": "3", "v2": "5", "v3": "1"}
    return [
        {"kind": "k", "id": f"r{at}", "values": {**values, "v0": str(at), "ph": f"+44 20 7946 {at:04}"}}
        for at in range(count)
    ]


def _png(side: int) -> bytes:
    """Return a picture of many pixels in few bytes."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", side, side, 8, 6, 0, 0, 0)
    packer, packed = zlib.compressobj(9), b""
    for _ in range(side):
        packed += packer.compress(b"\0" * (1 + side * 4))
    body = chunk(b"IDAT", packed + packer.flush())
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + body + chunk(b"IEND", b"")


def _jpeg(side: int, *, progressive: bool) -> bytes:
    buffer = io.BytesIO()
    Image.new("RGB", (side, side), "navy").save(buffer, "JPEG", progressive=progressive)
    return buffer.getvalue()


def _requests(form: str) -> Iterator[tuple[str, str, bytes]]:
    """Yield what is asked: a name, the address, the body."""
    state, files = f"/api/public/{form}/1/state", f"/api/public/{form}/1/files/file?name=a"

    def answers(**given: Any) -> bytes:
        return json.dumps({"answers": given}, ensure_ascii=False).encode()

    marks = "a" + "\u0315\u0300" * 100_000
    yield "200_kb_of_combining_marks", state, answers(text=marks)
    yield (
        "marks_within_the_length",
        state,
        answers(text="a" + "\u0315\u0300" * 4_999, name={"first": "b" + "\u0315" * 299}),
    )
    yield "800_kb_of_marks", state, answers(text=marks * 4)
    yield "1_mb_of_brackets", state, b'{"answers": ' + b"[" * 500_000 + b"]" * 500_000 + b"}"
    yield "a_number_of_a_megabyte", state, b'{"answers": {"text": ' + b"9" * 1_000_000 + b"}}"
    yield "500_rows_of_all_formulas", state, answers(rows=_rows(_ROWS))
    yield "more_rows_than_allowed", state, answers(rows=_rows(5_000))
    yield "50_000_files_that_are_none", state, answers(file=["00000000-0000-0000-0000-000000000000"] * 25_000)
    yield "png_of_59_megapixels", files, _png(7_680)
    yield "png_of_25_megapixels", files, _png(5_000)
    yield "progressive_jpeg_of_59_megapixels", files, _jpeg(7_680, progressive=True)
    yield "progressive_jpeg_of_16_megapixels", files, _jpeg(4_000, progressive=True)
    yield "plain_jpeg_of_59_megapixels", files, _jpeg(7_680, progressive=False)


def _send(port: int, path: str, body: bytes) -> float:
    kind = "application/json" if path.endswith("/state") else "application/octet-stream"
    request = urllib.request.Request(f"http://127.0.0.1:{port}{path}", body, {"Content-Type": kind})
    began = time.perf_counter()
    try:
        with urllib.request.urlopen(request, timeout=60) as reply:  # noqa: S310 - the same
            reply.read()
    except urllib.error.HTTPError as refused:
        refused.read()
        if refused.code >= 500:
            raise RuntimeError(f"{path} answered {refused.code}") from None
    return time.perf_counter() - began


def workers_of(parent: int) -> list[int]:
    """Return the processes that a server has started."""
    children = Path(f"/proc/{parent}/task/{parent}/children").read_text(encoding="ascii")
    return [int(each) for each in children.split()]


def _peak_megabytes(worker: int) -> float:
    lines = Path(f"/proc/{worker}/status").read_text(encoding="ascii").splitlines()
    peak = next(line for line in lines if line.startswith("VmHWM"))
    return int(peak.split()[1]) / 1024


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(_form()) as running:
        return _measure(running)


def _measure(running: Running) -> bool:
    _send(running.port, f"/api/public/{running.form}/1/state", b'{"answers": {}}')
    met = True
    for name, path, body in _requests(str(running.form)):
        seconds = min(_send(running.port, path, body) for _ in range(_ROUNDS))
        met = report(f"hostile_{name}", seconds, "seconds", _MOST_SECONDS, at_least=False) and met
    peak = max(_peak_megabytes(each) for each in workers_of(running.server))
    return report("hostile_peak_memory", peak, "MB of a worker", _MOST_MEGABYTES, at_least=False) and met
