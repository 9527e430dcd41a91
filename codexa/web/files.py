"""Files that are downloaded while they are written, and those that arrive: rights count until the last byte."""

import io
from collections.abc import Iterator
from time import monotonic
from typing import IO

from flask import Response, request, stream_with_context

from codexa.services.roles import Right
from codexa.web.guard import may

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_PIECE = 64 * 1024  # bytes
_LOOK_AGAIN = 1.0  # seconds


def streamed_file(content: Iterator[str] | Iterator[bytes], right: Right, kind: str, name: str) -> Response:
    """Return a file of a media type that is sent while it is written, for as long as who asks has the right.

    Once they have it no more the file breaks off within its body, so that no browser takes a part for the whole.
    """
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    pieces = _while_allowed(in_pieces(content), right)
    return Response(stream_with_context(pieces), mimetype=kind, headers=headers)


def in_pieces(lines: Iterator[str] | Iterator[bytes]) -> Iterator[bytes]:
    """Put lines together, so that the server is not busy with sending each by itself."""
    waiting, size = [], 0
    for line in lines:
        waiting.append(line.encode() if isinstance(line, str) else line)
        size += len(line)
        if size > _PIECE:
            yield b"".join(waiting)
            waiting, size = [], 0
    if waiting:
        yield b"".join(waiting)


def arriving(right: Right) -> IO[bytes]:
    """Return the body of this request; who has the right no more when its end is reached is refused, as by `may`."""
    return io.BufferedReader(_Body(right), _PIECE)


class _Body(io.RawIOBase):
    def __init__(self, right: Right) -> None:
        self._right = right

    def readable(self) -> bool:
        return True

    def readinto(self, buffer: memoryview) -> int:  # type: ignore[override]
        piece = request.stream.read(len(buffer))
        if not piece:
            may(self._right)
        buffer[: len(piece)] = piece
        return len(piece)


def _while_allowed(pieces: Iterator[bytes], right: Right) -> Iterator[bytes]:
    looked = monotonic()
    for piece in pieces:
        if monotonic() - looked > _LOOK_AGAIN:
            may(right)
            looked = monotonic()
        yield piece
