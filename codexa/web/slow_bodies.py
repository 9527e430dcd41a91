"""Ends requests whose body does not arrive in time: each holds one of a process's few threads.

A proxy that takes the whole body first does the same, and better (docs/settings.md); this is for where there is none.
"""

import heapq
import socket
import threading
import time
from collections.abc import Callable, Iterable, Iterator
from contextlib import suppress
from itertools import count
from typing import IO, Any

_SECONDS = 15.0  # for a body of any size
_LINGERING_SECONDS = 1.0  # for a reply to reach whoever still sends
_BYTES_PER_SECOND = 30_000  # what a slow line brings at least, once it has begun
WSGI = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]


class SlowBodies:
    """A WSGI application that gives another its requests, and ends those whose body comes too slowly."""

    def __init__(self, application: WSGI, seconds: float = _SECONDS) -> None:
        self._application = application
        self._seconds = seconds
        self._watch = _Watch()

    def __call__(self, environ: dict[str, Any], start_response: Callable[..., Any]) -> Iterable[bytes]:
        """Answer one request."""
        line = environ.get("gunicorn.socket")
        length = environ.get("CONTENT_LENGTH") or ""
        chunked = "chunked" in environ.get("HTTP_TRANSFER_ENCODING", "").lower()
        if line is None or not (chunked or (length.isdigit() and int(length) > 0)):
            return self._application(environ, start_response)
        size = int(length) if length.isdigit() else 0
        ending = self._watch.add(line, time.monotonic() + self._seconds + size / _BYTES_PER_SECOND)
        body = environ["wsgi.input"] = _Body(environ["wsgi.input"], None if chunked else size)
        try:
            return self._application(environ, start_response)
        finally:
            ending.cancel()
            if not body.is_whole:
                # The server reads what is left before it looks for a next request: not for long.
                self._watch.add(line, time.monotonic() + _LINGERING_SECONDS)


class _Body:
    """A body that knows whether it has come whole; `length` is what was told of it."""

    def __init__(self, content: IO[bytes], length: int | None) -> None:
        self._content, self._left = content, length
        self.is_whole = False

    def read(self, size: int = -1) -> bytes:
        piece = self._content.read(size) if size >= 0 else self._content.read()
        if self._left is not None:
            self._left -= len(piece)
        self.is_whole = self.is_whole or self._left == 0 or size < 0 or (size > 0 and not piece)
        return piece

    def readline(self, size: int = -1) -> bytes:
        return self._content.readline(size)

    def __iter__(self) -> Iterator[bytes]:
        return iter(self._content)


class _Ending:
    def __init__(self, line: socket.socket) -> None:
        self._line: socket.socket | None = line

    def cancel(self) -> None:
        self._line = None

    def end(self) -> None:
        line, self._line = self._line, None
        if line is not None:
            # Whoever reads from it gets the end at once; the reply can still be written.
            with suppress(OSError):
                line.shutdown(socket.SHUT_RD)


class _Watch:
    """One thread that ends what is due; started with the first request, so that each forked process has its own."""

    def __init__(self) -> None:
        self._due: list[tuple[float, int, _Ending]] = []
        self._numbers = count()
        self._changed = threading.Condition()
        self._thread: threading.Thread | None = None

    def add(self, line: socket.socket, at: float) -> _Ending:
        ending = _Ending(line)
        with self._changed:
            heapq.heappush(self._due, (at, next(self._numbers), ending))
            if self._thread is None or not self._thread.is_alive():
                self._thread = threading.Thread(target=self._run, name="slow bodies", daemon=True)
                self._thread.start()
            elif self._due[0][2] is ending:
                self._changed.notify()
        return ending

    def _run(self) -> None:
        while True:
            with self._changed:
                while not self._due or self._due[0][0] > time.monotonic():
                    self._changed.wait(self._due[0][0] - time.monotonic() if self._due else None)
                _, _, ending = heapq.heappop(self._due)
            ending.end()
