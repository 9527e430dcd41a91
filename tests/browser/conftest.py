"""The real thing for browser tests: gunicorn, the practice website, and Debian's Chromium."""

import json
import os
import re
import shutil
import subprocess
import time
import urllib.request
from pathlib import Path
from urllib.parse import urlencode

import psycopg
import pytest
from conftest import EXAMPLES, copied_database, make_person, within
from demo_database import CALENDAR, WEBSITE
from playwright.sync_api import expect
from psycopg.rows import dict_row

from codexa.core.fields import BLOCK_TYPES
from codexa.core.tables.table import known_table
from codexa.services import desk as desk_service
from codexa.services import publishing
from codexa.services.demo import PASSWORD, PEOPLE, TEAM
from codexa.services.tables import tables
from codexa.store import people
from launch import PYTHON, ROOT
from launch.machine import CHROMIUM, free_port

# Somebody whose password a test may change.
FORGETFUL = "sofia@alderlight.example.org"
RESULTS = ROOT / "test-results"
AXE = (ROOT / "frontend/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")
# A transition that is broken off has not finished, and never will.
SETTLED = "Promise.allSettled(document.getAnimations().map(each => each.finished)).then(() => null)"
FLAGS = (
    "no-sandbox disable-gpu disable-quic no-first-run "
    "disable-background-networking disable-component-update disable-sync"
)

expect.set_options(timeout=25_000)


def pytest_collection_modifyitems(items):
    """Give a test in a real browser a second try, which the summary tells of; the browser's timing is not all ours."""
    for item in items:
        if Path(__file__).parent in item.path.parents:
            item.add_marker(pytest.mark.flaky(reruns=1))


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {
        **browser_type_launch_args,
        "executable_path": str(CHROMIUM),
        "args": [f"--{flag}" for flag in FLAGS.split()],
    }


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    # What moves takes time; how it does is looked at where that is the matter.
    shown = {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}
    return {**browser_context_args, **shown, "locale": "en-GB"}


class Servers:
    """Where everything answers, and what it wrote."""

    def __init__(self, database, log):
        self.database = database
        self.log = log
        self.forms = []
        self.web = f"http://127.0.0.1:{free_port()}"
        self.website = f"http://127.0.0.1:{free_port()}"
        self.mailbox = f"http://127.0.0.1:{free_port()}"
        self.bank = f"http://127.0.0.1:{free_port()}"
        self.calendar = f"http://127.0.0.1:{free_port()}"
        self.processes = []

    def start(self, what, address, environment):
        command = [
            PYTHON,
            "-m",
            "gunicorn",
            what,
            "--bind",
            address.removeprefix("http://"),
            "--worker-class",
            "gthread",
        ]
        options = ["--threads", "8", "--no-control-socket"]
        with self.log.open("ab") as log:
            process = subprocess.Popen([*command, *options], cwd=ROOT, env=environment, stdout=log, stderr=log)
        self.processes.append(process)
        for _ in range(150):
            if self.answers(f"{address}/health" if "web.server" in what else address):
                return
            time.sleep(0.1)
        pytest.fail(f"{what} does not answer:\n{self.log.read_text()[-3000:]}")

    def start_module(self, module, environment):
        with self.log.open("ab") as log:
            command = [PYTHON, "-m", module]
            self.processes.append(subprocess.Popen(command, cwd=ROOT, env=environment, stdout=log, stderr=log))

    @staticmethod
    def answers(address):
        try:
            urllib.request.urlopen(address, timeout=2).close()
        except OSError:
            return False
        return True


def publish_for_tests(database, sites):
    """Publish the forms that tests alone need, in the demo's team."""
    with psycopg.connect(database, row_factory=dict_row) as connection:
        team = people.find_team(connection, slug=TEAM)
        person = people.find_person_by_email(connection, email=PEOPLE[0][1])
        mira = people.as_signed_in(connection, person=person.id, team=team)
        make_person(connection, team=TEAM, role="editor", email=FORGETFUL)
        short = json.loads((EXAMPLES.parent / "tests" / "cases" / "short_visit.json").read_text(encoding="utf-8"))
        table = next(each for each in tables.list_tables(within(connection), who=mira) if each.name == "Sites")
        known = known_table(table.id.hex, tables.show(within(connection), who=mira, table=table.id).table)
        every = every_type_document(known)
        for document in (short, every, long_words_document(every), long_words_document(every, NIGHT)):
            form = desk_service.import_form(within(connection), who=mira, document=document)
            publishing.set_sites(connection, who=mira, form=form, sites=sites)
            publishing.publish(within(connection), who=mira, form=form, revision=1)


def every_type_document(table):
    """A form with a block of every type, in every state that a type can be in: plain, required, locked, in a row.

    `table` is one whose records it offers.
    """
    blanks = [each.blank().model_dump(mode="json") for each in BLOCK_TYPES]
    known = {"picture": {"source": PIXEL, "alternative": "A dome"}, "hidden": {"formula": '"web"'}}
    known["number"] = {"price": "2.50"}
    known["slot"] = {"singles": [{"starts": f"2099-01-0{day}T18:00", "places": 900} for day in range(1, 8)]}
    ways = [{"id": "way1", "code": "small", "label": "Small", "price": "3"}]
    ways.append({"id": "way2", "code": "large", "label": "Large", "price": "3", "stock": 0})
    known["product"] = {"options": ways, "picture": PIXEL, "stock": 40}
    known["record_choice"] = {"table": table.id}
    known |= {"calculated": {"formula": "number * 2"}, "dropdown": {"options": MANY}, "text": {"text": RICH}}

    def made(prefix, wanted, **settings):
        blocks = []
        for blank in blanks:
            if not wanted(blank):
                continue
            extra = {name: value for name, value in settings.items() if name in blank}
            ids = {"id": f"{prefix}{blank['type'].replace('_', '')}", "key": f"{prefix}{blank['type']}"}
            name = f"{prefix.capitalize()} {blank.get('label', '').lower()}" if prefix else blank.get("label")
            label = {"label": name} if blank.get("label") else {}
            blocks.append(blank | known.get(blank["type"], {}) | extra | ids | label)
            if blank["type"] == "quantity":
                blocks[-1]["product"] = f"{prefix}apart"
        apart = {"type": "product", "id": f"{prefix}apart", "key": f"{prefix}apart", "label": f"{prefix} asked apart"}
        return [*blocks, apart | known["product"] | {"quantity": "apart"}]

    def is_question(blank):
        return "default" in blank

    kind = {"id": "krow", "key": "row", "label": "Row", "blocks": made("row", is_question)}
    plain = made("", lambda blank: blank["type"] not in ("group", "repeat"))
    group = {"id": "group", "type": "group", "key": "group", "label": "Group", "blocks": made("inner", is_question)}
    repeat = {"id": "repeat", "type": "repeat", "key": "repeat", "label": "Rows", "kinds": [kind]}
    required = made("needed", is_question, required="TRUE")
    locked = made("locked", is_question, locked="TRUE")
    blocks = [*plain, group, repeat, *required, *locked]
    pages = [{"id": "p", "title": "All", "blocks": blocks}]
    return {"name": "Every type", "title": "Every type", "tables": [table.model_dump(mode="json")], "pages": pages}


LONG = "Donaudampfschifffahrtselektrizitätenhauptbetriebswerkbauunter"
NIGHT = {"accent": "#D4B24C", "banner": "#101820", "ground": "#0B0F14", "paper": "#161C24", "ink": "#E9EDF2"}


def long_words_document(every, brand=None):
    """A form of twelve pages in which whatever says something says it in a word of sixty letters."""

    def lengthened(part):
        if isinstance(part, list):
            return [lengthened(each) for each in part]
        if not isinstance(part, dict):
            return part
        long = {name: f"{LONG} {part['id']}" for name in ("label", "help", "lead", "other_label") if name in part}
        return {name: lengthened(value) for name, value in part.items()} | long

    seen = [each for each in every["pages"][0]["blocks"] if not each["id"].startswith("locked")]
    pages = [{"id": "p", "title": LONG, "blocks": lengthened(seen)}]
    pages += [{"id": f"p{at}", "title": f"{LONG} {at}", "blocks": []} for at in range(2, 13)]
    progress = ["steps", "bar", "count", "percent", "left"]
    name = "Long words in the dark" if brand else "Long words"
    return {"format": 2, "name": name, "title": LONG, "lead": LONG, "pages": pages, "brand": brand or {}} | {
        "presentation": "paged",
        "progress": progress,
        "tables": every["tables"],
    }


MANY = [{"id": f"o{at}", "code": f"c{at}", "label": f"Star {at}"} for at in range(30)]
RICH = "<p>Rich <strong>text</strong> with {number}</p><ul><li>one</li></ul>"
PIXEL = "data:image/svg+xml;base64,PHN2ZyB4bWxucz0iaHR0cDovL3d3dy53My5vcmcvMjAwMC9zdmciLz4="


@pytest.fixture(scope="session")
def servers(cluster, demo_template, tmp_path_factory):
    template, demo_files = demo_template
    with copied_database(cluster, template) as database:
        files = tmp_path_factory.mktemp("files")
        shutil.copytree(demo_files, files, dirs_exist_ok=True)
        yield from serve(database, str(files), tmp_path_factory)


@pytest.fixture(autouse=True)
def made_before(request):
    """What other tests have made stands last on the desk, which draws its first sixty forms."""
    if "servers" not in request.fixturenames:
        return
    servers = request.getfixturevalue("servers")
    with psycopg.connect(servers.database) as connection:
        changed = "UPDATE form SET changed_at = '2000-01-01' WHERE id <> ALL(%s) AND changed_at > '2000-01-02'"
        connection.execute(changed, [servers.forms])


def serve(database, files, tmp_path_factory):
    """Start everything on a copy of the demo, and end it."""
    servers = Servers(database, tmp_path_factory.mktemp("logs") / "servers.log")
    with psycopg.connect(database) as connection:
        connection.execute("UPDATE form SET sites = array_replace(sites, %s, %s)", (WEBSITE, servers.website))
        connection.execute("UPDATE calendar SET address = replace(address, %s, %s)", (CALENDAR, servers.calendar))
    publish_for_tests(database, [servers.website])
    with psycopg.connect(database) as connection:
        servers.forms = [form for (form,) in connection.execute("SELECT id FROM form")]
    environment = {
        **os.environ,
        "CODEXA_DATABASE": database,
        "CODEXA_PUBLIC_ADDRESS": servers.web,
        "CODEXA_PUBLIC_RATE": "100000 per minute",
        "CODEXA_TEAM_RATE": "100000 per minute",
        # A test fills in faster than any person.
        "CODEXA_HOLD_SUSPECTED": "no",
        "CODEXA_WORK_RATE": "100000 per minute",
        "CODEXA_FILES": files,
        "PRACTICE_MAILBOX": str(tmp_path_factory.mktemp("mailbox")),
        "PRACTICE_BANK": str(tmp_path_factory.mktemp("bank")),
        "PRACTICE_CALENDAR": str(tmp_path_factory.mktemp("calendar")),
        "CODEXA_PRACTICE_BANK": servers.bank,
    }
    environment |= dict.fromkeys(("CODEXA_SMTP_PORT", "PRACTICE_SMTP_PORT"), str(free_port()))
    servers.start("codexa.web.server:application()", servers.web, environment)
    servers.start("codexa.practice.website.server:application()", servers.website, environment)
    servers.start("codexa.practice.mailbox.server:application()", servers.mailbox, environment)
    servers.start("codexa.practice.bank.server:application()", servers.bank, environment)
    servers.start("codexa.practice.calendar.server:application()", servers.calendar, environment)
    servers.start_module("codexa.practice.mailbox.smtp", environment)
    servers.start_module("codexa.jobs", environment)
    yield servers
    for process in servers.processes:
        process.terminate()
    for process in servers.processes:
        process.wait()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item, call):
    report = yield
    servers = getattr(item, "funcargs", {}).get("servers")
    if report.failed and servers:
        RESULTS.mkdir(exist_ok=True)
        (RESULTS / f"{item.name.replace('/', '-')[:80]}.log").write_text(servers.log.read_text())
    return report


@pytest.fixture(autouse=True)
def no_page_errors(page):
    """A script error or a refusal by the content security policy fails the test that met it."""
    met = []
    page.on("pageerror", lambda error: met.append(str(error)))
    # In the formula editor Chromium itself, on typing over a selection, tries to keep its look by a style attribute.
    page.add_init_script(
        "addEventListener('securitypolicyviolation', e => e.target?.closest?.('.cm-content') ||"
        " console.error('refused by policy:', e.violatedDirective, e.sourceFile, e.lineNumber, e.blockedURI))"
    )
    page.on("console", lambda message: met.append(message.text) if message.text.startswith("refused") else None)
    yield
    assert met == []


def sign_in(page, servers, who=PEOPLE[0]):
    page.goto(servers.web)
    page.get_by_label("E-mail").fill(who[1])
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("heading", name="Alderlight Observatory")).to_be_visible()


@pytest.fixture(scope="session")
def miras_cookies():
    """What Mira's browser kept when she signed in last."""
    return []


@pytest.fixture
def desk(page, servers, miras_cookies):
    """A page on the desk, signed in as Mira: as before, where that session still counts."""
    page.context.add_cookies(miras_cookies)
    page.goto(servers.web)
    heading, email = page.get_by_role("heading", name="Alderlight Observatory"), page.get_by_label("E-mail")
    expect(heading.or_(email)).to_be_visible()
    if email.is_visible():
        sign_in(page, servers)
        miras_cookies[:] = page.context.cookies()
    return page


WCAG = {"type": "tag", "values": ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]}
CONTRAST = {"type": "rule", "values": ["color-contrast"]}


def axe_findings(page, only=WCAG):
    """Return what axe-core finds on the page once nothing moves: WCAG 2.2 A and AA, or only what is asked for."""
    # A colour on its way to another is neither.
    page.mouse.move(2, 400)
    expect(page.get_by_role("tooltip")).to_have_count(0)
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    page.evaluate(SETTLED)
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    # What it finds in order is a hundred times as much to make up and to hand over.
    found = page.evaluate(
        "only => axe.run({runOnly: only, resultTypes: ['violations']}).then(found => found.violations)", only
    )
    return [f"{each['id']}: {node['target']} {node['failureSummary']}" for each in found for node in each["nodes"]]


def open_mail(page, servers, mail):
    """Wait for a mail, a link in the list of the practice mailbox, and open it."""
    for _ in range(40):
        page.goto(servers.mailbox)
        if mail.count():
            break
        page.wait_for_timeout(500)
    mail.first.click()


def mailed_link(page, servers, subject, name):
    """Wait for a mail in the practice mailbox, and return where the link of that name in it leads."""
    open_mail(page, servers, page.get_by_role("link", name=subject))
    return page.frame_locator("iframe").get_by_role("link", name=name).get_attribute("href")


def expect_usable(page):
    """Expect axe-core to find nothing on the screen, and its colours to read well in the dark scheme too."""
    assert axe_findings(page) == []
    page.emulate_media(color_scheme="dark")
    assert axe_findings(page, CONTRAST) == []
    page.emulate_media(color_scheme="light")


def saved(page):
    """Wait until the draft is saved."""
    expect(page.get_by_role("status").filter(has_text=re.compile(r"^Saved"))).to_be_visible()


def area(page, name):
    """Go to an area of the workbench."""
    page.get_by_role("navigation", name="Areas").get_by_role("link", name=re.compile(f"^{name}")).click()


def section(page, name):
    """Open a section of Publish."""
    page.get_by_role("region", name="Sections").get_by_role("button", name=re.compile(rf"^{name}( \d+)?$")).click()


class Published:
    """A form that was published by the API, and what visitors and the team have of it."""

    def __init__(self, page, servers, document):
        who = page.request.get(f"{servers.web}/api/session").json()
        headers = {"X-CSRF-Token": who["csrf_token"]}
        # Another name than that of the demo's form, which other tests open by it.
        name = f"Tried: {document['name']}"
        asked = {"name": name, "document": document | {"name": name}}
        made = page.request.post(f"{servers.web}/api/forms", data=asked, headers=headers).json()
        self.page, self.api = page, f"{servers.web}/api/forms/{made['id']}"
        reply = page.request.post(f"{self.api}/editions", data={"revision": 1}, headers=headers)
        assert reply.ok, reply.text()
        self.workbench = f"{servers.web}/forms/{made['id']}"
        self.address = reply.json()["address"]

    def visit(self, *, width=1280, **query):
        """Open it as a visitor, in a window of its own."""
        visitor = self.page.context.new_page()
        visitor.set_viewport_size({"width": width, "height": 800})
        visitor.goto(f"{self.address}?{urlencode(query)}")
        return visitor

    def response(self, number=1):
        """Return what a response has in its columns."""
        reply = self.page.request.get(f"{self.api}/responses/{number}")
        assert reply.ok, reply.text()
        return reply.json()["row"]["cells"]


def import_form(page, path_or_document):
    """Make a form of a JSON document by the desk's menu; leaves the page in its workbench."""
    choose_document(page, path_or_document)
    page.wait_for_url("**/compose")


def choose_document(page, path_or_document):
    """Choose a JSON document, or a file of one, in the desk's menu."""
    document = (
        path_or_document if isinstance(path_or_document, dict) else json.loads(Path(path_or_document).read_text())
    )
    page.get_by_role("button", name="New form", exact=True).click()
    with page.expect_file_chooser() as chooser:
        page.get_by_role("menuitem", name="From a JSON file").click()
    chooser.value.set_files(
        {"name": "form.json", "mimeType": "application/json", "buffer": json.dumps(document).encode()}
    )
