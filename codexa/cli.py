"""Codexa's own commands: migrate the database, load the demo, tidy up, write the generated documents."""

import argparse
import json
import sys
from pathlib import Path

from codexa.reference import definition_reference, formula_reference
from codexa.settings import Settings, SettingsError, read_settings
from codexa.store.database import migrate, open_pool
from codexa.web.openapi import (
    block_types,
    form_schema,
    functions,
    messages,
    openapi,
    reserved_keys,
    usual_words,
    wire_schema,
)

_ROOT = Path(__file__).parent.parent
GENERATED = {
    "docs/form.schema.json": form_schema,
    "docs/form-definition.md": definition_reference,
    "docs/formulas.md": formula_reference,
    "docs/openapi.json": openapi,
    "frontend/src/api/generated/wire.schema.json": wire_schema,
    "frontend/src/api/generated/block_types.json": block_types,
    "frontend/src/api/generated/functions.json": functions,
    "frontend/src/api/generated/messages.json": messages,
    "frontend/src/api/generated/reserved_keys.json": reserved_keys,
    "frontend/src/api/generated/usual_words.json": usual_words,
}


def main() -> int:
    """Run one command; returns the exit code."""
    parser = argparse.ArgumentParser(prog="python -m codexa.cli", description=__doc__)
    parser.add_argument("command", choices=("migrate", "load-demo", "tidy", "write-schemas"))
    parser.add_argument("--site", action="append", default=[], help="load-demo: a website that may frame the forms")
    options = parser.parse_args()
    if options.command == "write-schemas":
        write_schemas()
        return 0
    try:
        settings = read_settings()
    except SettingsError as error:
        print(error, file=sys.stderr)
        return 1
    if options.command == "migrate":
        migrate(settings.database)
    elif options.command == "tidy":
        _tidy(settings)
    else:
        from codexa.services.demo import load_demo

        load_demo(settings.database, examples=_ROOT / "examples", sites=options.site)
    return 0


def _tidy(settings: Settings) -> None:
    from codexa.services.tidying import tidy

    with open_pool(settings.database, 1) as pool, pool.connection() as connection:
        done = tidy(connection, Path(settings.files))
    print(f"Deleted: {done.uploads} uploads, {done.states} saved states, {done.pictures} pictures.")


def document_text(document: object) -> str:
    """Return a generated document as it is written to disk."""
    if isinstance(document, str):
        return document
    return json.dumps(document, indent=2, ensure_ascii=False, sort_keys=True) + "\n"


def write_schemas() -> None:
    """Write every generated document; a test fails while one of them is out of date."""
    for name, make in GENERATED.items():
        path = _ROOT / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(document_text(make()), encoding="utf-8")


if __name__ == "__main__":
    sys.exit(main())
