"""Files that are downloaded while they are written."""

from collections.abc import Iterator

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_PIECE = 64 * 1024  # bytes


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
