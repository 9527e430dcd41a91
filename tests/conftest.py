"""What tests share: one PostgreSQL cluster for the run, and an empty, migrated database for each test that asks."""

import logging
import os
import signal
import subprocess
import tempfile
import uuid
from contextlib import ExitStack, contextmanager, nullcontext
from itertools import groupby
from pathlib import Path

import hypothesis
import psycopg
import pytest
from argon2 import PasswordHasher, profiles
from demo_database import made_once
from psycopg import sql
from psycopg.rows import dict_row
from web.mail import box, worker  # noqa: F401 - fixtures
from werkzeug.routing import Rule
from whitenoise import WhiteNoise

from codexa.services import desk, drafts, people, publishing, receiving
from codexa.services.answering import Given
from codexa.services.compiled_drafts import CompiledDrafts
from codexa.services.editions import Editions
from codexa.services.receiving import Incoming
from codexa.settings import Settings
from codexa.store import people as store
from codexa.store.database import migrate
from codexa.web.app import create_app
from launch.machine import free_port
from launch.postgres import Cluster

# How long a test takes says nothing on a machine that others use too.
hypothesis.settings.register_profile("codexa", deadline=None, suppress_health_check=[hypothesis.HealthCheck.too_slow])
hypothesis.settings.load_profile("codexa")

# Verified hundreds of times in a run: as weak as argon2id can be.
CHEAP_HASH = PasswordHasher.from_parameters(profiles.CHEAPEST).hash("a long password")


_compile, _compiled = Rule.compile, {}
_OF_A_RULE = ("_parts", "_trace", "_converters", "arguments", "_build", "_build_unknown")


def _compile_as_before(rule):
    # A thousand tests make an application: Werkzeug would take 360 addresses apart and write code for them each time.
    of = (rule.rule, rule.subdomain, repr(rule.defaults))
    if of not in _compiled:
        _compile(rule)
        _compiled[of] = {name: vars(rule)[name] for name in _OF_A_RULE}
    vars(rule).update(_compiled[of])


Rule.compile = _compile_as_before
_read_static, _static = WhiteNoise.get_static_file, {}


def _static_as_before(served, path, url, stat_cache=None):
    # And has two hundred files looked at.
    if path not in _static:
        _static[path] = _read_static(served, path, url, stat_cache)
    return _static[path]


WhiteNoise.get_static_file = _static_as_before


class _Fails(logging.Handler):
    """A formula that meets a defect of the program ends the test, where a visitor would see an error value."""

    def emit(self, record):
        raise AssertionError(record.getMessage())


logging.getLogger("codexa.formula").addHandler(_Fails())


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items):
    """Give each process that runs tests its share of the slow ones: it begins with a contiguous piece of the list."""
    processes = int(os.environ.get("PYTEST_XDIST_WORKER_COUNT", "1"))
    if processes == 1:
        return
    slow = [list(each) for _, each in groupby((i for i in items if "browser/" in i.nodeid), lambda item: item.fspath)]
    rest = [item for item in items if "browser/" not in item.nodeid]
    shares = [[] for _ in range(processes)]
    for module in sorted(slow, key=len, reverse=True):
        min(shares, key=len).extend(module)
    of_each = len(items) // processes
    dealt = []
    for share in shares:
        taken = max(0, of_each - len(share))
        dealt += rest[:taken] + share
        del rest[:taken]
    items[:] = dealt + rest


EXAMPLES = Path(__file__).parent.parent / "examples"


# What a test keeps need not outlive the machine; many small databases come and go.
_FOR_TESTS = ("fsync=off", "full_page_writes=off", "shared_buffers=256MB", "max_wal_size=512MB", "max_connections=300")


@contextmanager
def _running_cluster():
    """The folder and the port of a running cluster with a migrated database to copy."""
    with tempfile.TemporaryDirectory(prefix="codexa-test-") as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "postgres", free_port())
        cluster.initialise()
        command = [*cluster.command(), *(word for setting in _FOR_TESTS for word in ("-c", setting))]
        with subprocess.Popen(command, cwd="/", stderr=subprocess.DEVNULL) as postgres:
            cluster.wait()
            cluster.create_database("template_migrated")
            migrate(cluster.address("template_migrated"))
            yield folder, cluster.port
            # Told to terminate it would wait for whoever is still connected, such as after a test that failed.
            postgres.send_signal(signal.SIGINT)
            postgres.wait()
        cluster.remove()


_OF_THE_RUN = ExitStack()
_GIVEN = pytest.StashKey[tuple[str, int]]()


@pytest.hookimpl(optionalhook=True)
def pytest_configure_node(node):
    """Give each process that runs tests the one cluster of the run."""
    if _GIVEN not in node.config.stash:
        node.config.stash[_GIVEN] = _OF_THE_RUN.enter_context(_running_cluster())
    node.workerinput["cluster"] = node.config.stash[_GIVEN]


def pytest_unconfigure():
    _OF_THE_RUN.close()


@pytest.fixture(scope="session")
def run_folder(request):
    """The folder, for all processes, of what the run's tests have in common; its cluster is there and runs."""
    given = getattr(request.config, "workerinput", {}).get("cluster")
    with nullcontext(given) if given else _running_cluster() as (folder, port):
        yield Path(folder), port


@pytest.fixture(scope="session")
def cluster(run_folder):
    folder, port = run_folder
    return Cluster(folder / "postgres", port)


@pytest.fixture(scope="session")
def demo_template(cluster, run_folder):
    """The name of a database with the demo, to be copied, and the folder with its files."""
    return made_once(cluster, run_folder[0])


@contextmanager
def copied_database(cluster, template="template_migrated"):
    """The address of a database of one's own, a migrated one, dropped at the end."""
    name = f"test_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
        make = sql.SQL("CREATE DATABASE {} OWNER codexa TEMPLATE {} STRATEGY file_copy")
        connection.execute(make.format(sql.Identifier(name), sql.Identifier(template)))
        yield cluster.address(name)
        connection.execute(sql.SQL("DROP DATABASE {} WITH (FORCE)").format(sql.Identifier(name)))


@pytest.fixture
def database(cluster):
    """The address of a database of this test's own."""
    with copied_database(cluster) as address:
        yield address


@pytest.fixture
def connection(database):
    with psycopg.connect(database, row_factory=dict_row) as connection:
        yield connection


def make_person(connection, *, team="alderlight", role="owner", email=None):
    """Make somebody (and their team, if it is new) and return them as signed in."""
    team_id = store.find_team(connection, slug=team) or store.insert_team(connection, slug=team, name=team.title())
    email = email or f"{role}-{uuid.uuid4().hex[:6]}@example.org"
    known = {"role": role, "email": email, "name": role.title(), "password_hash": CHEAP_HASH}
    return people.make_person(connection, team=team_id, **known)


def within(connection):
    """What services connect with: this very connection, whose transaction the test ends."""
    return lambda: nullcontext(connection)


def save_draft(connection, *, who, form, revision, document):
    """Save a draft; the transaction stays the test's."""
    connect = within(connection)
    known = Editions(connect), CompiledDrafts(connect)
    return drafts.save_draft(connect, *known, who=who, form=form, revision=revision, document=document)


def receive(connection, program, form, key, answers, *, visit="", **moment):
    """Hand a response in to the first edition."""
    incoming = Incoming(form=form, edition=1, key=key, given=Given(answers=answers, link={}, visit=visit))
    return receiving.receive(connection, program, incoming, **moment)


@pytest.fixture
def mira(connection):
    """The owner of a team, signed in."""
    return make_person(connection, email="mira@example.org")


def visit_document():
    """A small form: two numbers, a rule on their sum, a calculated price."""
    return {
        "name": "Visit",
        "title": "Your visit",
        "pages": [
            {
                "id": "p1",
                "title": "Visit",
                "blocks": [
                    {
                        "id": "show",
                        "type": "single_choice",
                        "key": "show",
                        "label": "Show",
                        "options": [
                            {"id": "o1", "code": "stars", "label": "First stars", "counts_as": "4.50"},
                            {"id": "o2", "code": "deep", "label": "Deep sky", "counts_as": "6"},
                        ],
                    },
                    {
                        "id": "people",
                        "type": "number",
                        "key": "people",
                        "label": "People",
                        "required": "TRUE",
                        "minimum": "1",
                        "maximum": "60",
                    },
                    {
                        "id": "school",
                        "type": "short_text",
                        "key": "school",
                        "label": "School",
                        "shown": "people > 12",
                        "required": "TRUE",
                    },
                    {"id": "mail", "type": "email", "key": "mail", "label": "E-mail"},
                    {
                        "id": "price",
                        "type": "calculated",
                        "key": "price",
                        "label": "Price",
                        "format": "money",
                        "formula": "show * people",
                    },
                ],
            }
        ],
    }


def publish_visit(connection, who):
    """Publish the small form for somebody's team and return its id."""
    form = desk.import_form(within(connection), who=who, document=visit_document())
    publishing.publish(within(connection), who=who, form=form, revision=1)
    connection.commit()
    return form


@pytest.fixture
def published(connection, mira):
    """The id of a published form of Mira's team."""
    return publish_visit(connection, mira)


@contextmanager
def app_on(database, files):
    """The application on a database, with a folder for files."""
    rates = {"public_rate": "100000 per minute", "team_rate": "100000 per minute"}
    # What tests send comes from no page.
    rates["hold_suspected"] = "no"
    rates["work_rate"] = "100000 per minute"
    settings = Settings(database=database, pool_size="4", files=str(files), least_free_disk="0", **rates)
    app = create_app(settings)
    yield app
    app.extensions["codexa"].close()


@pytest.fixture
def app(database, tmp_path):
    with app_on(database, tmp_path) as app:
        yield app


class Browser:
    """A client that keeps its cookies and sends the CSRF token, as the workbench does."""

    def __init__(self, app):
        self.client = app.test_client()
        self.headers = {}

    def sign_in(self, email, password="a long password"):
        reply = self.client.post("/api/session", json={"email": email, "password": password})
        if reply.status_code == 200:
            self.headers = {"X-CSRF-Token": reply.json["csrf_token"]}
        return reply

    def __getattr__(self, method):
        call = getattr(self.client, method)
        return lambda address, **options: call(
            address, headers={**self.headers, **options.pop("headers", {})}, **options
        )


@pytest.fixture
def agent(app):
    return Browser(app)


@pytest.fixture
def as_mira(agent, mira, connection):
    """The workbench with Mira signed in."""
    connection.commit()
    assert agent.sign_in("mira@example.org").status_code == 200
    return agent
