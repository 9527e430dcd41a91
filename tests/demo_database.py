"""The demo as a database to copy: loaded by whichever process of the run needs it first."""

import psycopg
import pytest
from argon2 import PasswordHasher, profiles

from codexa.services import demo
from codexa.settings import Settings
from codexa.store.database import Database

TEMPLATE = "template_demo"
# What a copy puts its own addresses in the place of.
WEBSITE, CALENDAR = "http://127.0.0.1:1", "http://127.0.0.1:2"
MOST_RESPONSES = 300
_LOADING = 1  # the lock of who loads it


def made_once(cluster, folder):
    """Return the name of the database and the folder of its files."""
    from conftest import EXAMPLES  # noqa: PLC0415 - which has this as a fixture

    files = folder / "demo-files"
    with psycopg.connect(cluster.admin_address(), autocommit=True) as admin:
        admin.execute("SELECT pg_advisory_lock(%s)", (_LOADING,))
        if not admin.execute("SELECT 1 FROM pg_database WHERE datname = %s", (TEMPLATE,)).fetchone():
            admin.execute("CREATE DATABASE demo_being_loaded OWNER codexa TEMPLATE template_migrated")
            _load(cluster.address("demo_being_loaded"), EXAMPLES, files)
            admin.execute(f"ALTER DATABASE demo_being_loaded RENAME TO {TEMPLATE}")
    return TEMPLATE, files


def _load(address, examples, files):
    database = Database(address, 2)
    with pytest.MonkeyPatch.context() as patch:
        # Two thousand responses take half a minute, and no test looks at them.
        patch.setattr(demo, "FORMS", {file: min(count, MOST_RESPONSES) for file, count in demo.FORMS.items()})
        settings = Settings(files=str(files), practice_calendar=CALENDAR)
        demo.load_demo(database, examples=examples, sites=[WEBSITE], settings=settings)
    database.close()
    # Tests sign in often.
    cheap = PasswordHasher.from_parameters(profiles.CHEAPEST).hash(demo.PASSWORD)
    with psycopg.connect(address) as connection:
        connection.execute("UPDATE person SET password_hash = %s", (cheap,))
