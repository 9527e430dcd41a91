"""Codexa's own commands: for the database, for people, for backups, and for the generated documents."""

import argparse
import json
import sys
from getpass import getpass
from pathlib import Path

from codexa.reference import definition_reference, formula_reference
from codexa.services import people
from codexa.services.backups import BackupError, back_up, restore
from codexa.services.demo import load_demo
from codexa.services.documents import check_documents
from codexa.services.errors import ServiceError
from codexa.services.signing_in import change_password
from codexa.services.tables.working_out import fill_keys
from codexa.services.tidying import tidy
from codexa.settings import Settings, SettingsError, read_settings
from codexa.store.database import AwayError, BusyError, Database, migrate
from codexa.web.openapi import (
    block_types,
    differences,
    form_schema,
    functions,
    language_names,
    messages,
    openapi,
    palettes,
    reserved_keys,
    rich_text,
    short_words,
    usual_words,
    wire_schema,
    words_by_language,
)

_ROOT = Path(__file__).parent.parent
_LONG_STATEMENT_SECONDS = 3_600  # a backup holds its transaction for as long as the dump takes
GENERATED = {
    "docs/form.schema.json": form_schema,
    "docs/form-definition.md": definition_reference,
    "docs/formulas.md": formula_reference,
    "docs/openapi.json": openapi,
    "frontend/src/api/generated/wire.schema.json": wire_schema,
    "frontend/src/api/generated/block_types.json": block_types,
    "frontend/src/api/generated/functions.json": functions,
    "frontend/src/api/generated/differences.json": differences,
    "frontend/src/api/generated/messages.json": messages,
    "frontend/src/api/generated/reserved_keys.json": reserved_keys,
    "frontend/src/api/generated/rich_text.json": rich_text,
    "frontend/src/api/generated/short_words.json": short_words,
    "frontend/src/api/generated/usual_words.json": usual_words,
    "frontend/src/api/generated/words_by_language.json": words_by_language,
    "frontend/src/api/generated/languages.json": language_names,
    "frontend/src/api/generated/palettes.json": palettes,
}


def main() -> int:
    """Run one command; returns the exit code."""
    options = _parser().parse_args()
    if options.command == "write-schemas":
        write_schemas()
        return 0
    try:
        return _run(options, read_settings())
    except (SettingsError, ServiceError, BackupError) as error:
        print(error, file=sys.stderr)
    except (AwayError, BusyError):
        print("The database does not answer. Is it running, and is CODEXA_DATABASE its address?", file=sys.stderr)
    return 1


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m codexa.cli", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    commands.add_parser("migrate", help="bring the database to this version; run it before the version starts")
    demo = commands.add_parser("load-demo", help="fill an empty database with the demo's data; never in production")
    demo.add_argument("--site", action="append", default=[], help="a website that may frame the forms")
    commands.add_parser("tidy", help="delete what nobody needs any more; once a day")
    owner = commands.add_parser("create-owner", help="make an owner, and their team; the password is asked for")
    owner.add_argument("--team", required=True)
    owner.add_argument("--email", required=True)
    owner.add_argument("--name", required=True)
    password = commands.add_parser("set-password", help="give somebody another password; ends all their sessions")
    password.add_argument("--email", required=True)
    for name, purpose in (("backup", "write a backup into a new folder"), ("restore", "bring a backup back")):
        commands.add_parser(name, help=purpose).add_argument("folder", type=Path)
    commands.add_parser("write-schemas", help="write the generated documents")
    return parser


def _run(options: argparse.Namespace, settings: Settings) -> int:
    if options.command == "restore":
        print(f"Restored, with {restore(settings.database, Path(settings.files), options.folder)} files.")
        return 0
    if options.command == "migrate":
        migrate(settings.database)
    database = Database(settings.database, 2, statement_seconds=_LONG_STATEMENT_SECONDS)
    try:
        return _COMMANDS[options.command](options, settings, database)
    finally:
        database.close()


def _check(_options: argparse.Namespace, _settings: Settings, database: Database) -> int:
    fill_keys(database.connection)
    unreadable = check_documents(database.connection)
    if unreadable:
        print(f"{unreadable} forms can't be read by this version; the desk shows which.", file=sys.stderr)
    return 0


def _load_demo(options: argparse.Namespace, settings: Settings, database: Database) -> int:
    if settings.mode == "production":
        print("This is production (CODEXA_MODE); the demo's data and its known passwords stay out.", file=sys.stderr)
        return 1
    load_demo(database, examples=_ROOT / "examples", sites=options.site, settings=settings)
    return 0


def _tidy(_options: argparse.Namespace, settings: Settings, database: Database) -> int:
    with database.connection() as connection:
        done = tidy(connection, Path(settings.files))
    print(f"Deleted: {done.uploads} uploads, {done.states} saved states, {done.pictures} pictures.")
    return 0


def _create_owner(options: argparse.Namespace, _settings: Settings, database: Database) -> int:
    password = _password()
    with database.connection() as connection:
        people.create_owner(connection, team=options.team, email=options.email, name=options.name, password=password)
    print(f"{options.email} may sign in as an owner of {options.team}.")
    return 0


def _set_password(options: argparse.Namespace, _settings: Settings, database: Database) -> int:
    password = _password()
    people.refuse_short(password)
    with database.connection() as connection:
        change_password(connection, email=options.email, password=password)
    print(f"{options.email} has another password and is signed out everywhere.")
    return 0


def _back_up(options: argparse.Namespace, settings: Settings, database: Database) -> int:
    count = back_up(database, settings.database, Path(settings.files), options.folder)
    print(f"Backed up into {options.folder}, with {count} files.")
    return 0


def _password() -> str:
    """Ask for a password, or read it from the first line of the input."""
    return getpass("Password: ") if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")


_COMMANDS = {
    "migrate": _check,
    "load-demo": _load_demo,
    "tidy": _tidy,
    "create-owner": _create_owner,
    "set-password": _set_password,
    "backup": _back_up,
}


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
