"""Loads the named queries of the .sql files beside this module, one file per resource."""

import re
from functools import cache
from pathlib import Path

_NAMED = re.compile(r"^-- name: (\w+)\n((?:--[^\n]*\n)*)(.*?)(?=^-- name: |\Z)", re.MULTILINE | re.DOTALL)


@cache
def queries(resource: str) -> dict[str, bytes]:
    """Return the queries of a resource by name, as bytes that psycopg takes with bound parameters."""
    text = Path(__file__).with_name(f"{resource}.sql").read_text(encoding="utf-8")
    return {name: body.strip().encode() for name, _purpose, body in _NAMED.findall(text)}
