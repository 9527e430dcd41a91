"""The demo: the team of Alderlight Observatory, its forms, and responses made through the real `receive`."""

import datetime
import json
from collections.abc import Sequence
from contextlib import nullcontext
from dataclasses import dataclass
from pathlib import Path
from random import Random
from uuid import UUID

from codexa.core.form.access import Access
from codexa.core.program.accept import Refused
from codexa.core.program.program import Program
from codexa.core.program.samples import sample_answers
from codexa.services import demo_decisions, desk, links, lists, moving, people, publishing, templates, who_and_when
from codexa.services.answering import Given
from codexa.services.context import context_of
from codexa.services.demo_people import LOAN, let_in, make_groups_and_members
from codexa.services.demo_tables import make_tables, with_tables
from codexa.services.demo_visits import visit
from codexa.services.demo_work import work_with
from codexa.services.editions import Editions
from codexa.services.encryption import encrypted
from codexa.services.links import Making
from codexa.services.payments.accounts import PRACTICE_BANK
from codexa.services.payments.settling import Way
from codexa.services.receiving import Incoming, receive
from codexa.services.sealing import Sealed
from codexa.services.signing_in import hash_password
from codexa.services.spreadsheets import read_table
from codexa.services.tables.looking_up import tables_in
from codexa.services.visitors import GUEST, Visitor
from codexa.settings import Settings
from codexa.store import calendars as calendar_store
from codexa.store import payments
from codexa.store import people as people_store
from codexa.store.database import Connect, Connection, Database
from codexa.store.sessions import SignedIn

TEAM = "alderlight"
PASSWORD = "alderlight"  # noqa: S105 - the demo's, printed at its start
PEOPLE = (
    ("owner", "mira@alderlight.example.org", "Mira Okafor"),
    ("editor", "jonas@alderlight.example.org", "Jonas Lindqvist"),
    ("viewer", "aylin@alderlight.example.org", "Aylin Demir"),
)
FORMS = {  # file: how many responses
    "plan_a_visit.json": 300,
    "travelling_dome_quote.json": 48,
    "observation_log.json": 36,
    "northern_sky_quiz.json": 60,
    "night_watcher_profile.json": 72,
    "star_shop_order.json": 54,
    "patron_programme.json": 24,
    "talk_feedback.json": 2_000,
    "instrument_loan.json": 30,
    "talks_proposed.json": 6,
    "seats_at_talks.json": 24,
    "share_a_sighting.json": 9,
    "dome_night_booking.json": 60,
    "small_grant.json": 18,
}
_LABELS = {
    "plan_a_visit.json": ("Visits",),
    "dome_night_booking.json": ("Visits",),
    "travelling_dome_quote.json": ("Visits", "Schools"),
    "northern_sky_quiz.json": ("Schools",),
    "star_shop_order.json": ("Money",),
    "patron_programme.json": ("Money", "Members"),
    "small_grant.json": ("Money",),
    "instrument_loan.json": ("Members",),
    "share_a_sighting.json": ("Members",),
}
# Sealed links for each line of it, by which its form is answered.
_TALKS = ("talk_feedback.json", "talks.csv", {"talk": "Title", "number": "No.", "speaker": "Speaker"})
_GONE_ON_WITH, _KEPT_DAYS = "observation_log.json", 14  # visitors may go on with it later
_WAYS = (  # how visitors come, and how often
    ({"way": "link", "page": ""}, 5),
    ({"way": "script", "page": "http://127.0.0.1:8790/visit"}, 3),
    ({"way": "pop-up", "page": "http://127.0.0.1:8790/shop"}, 1),
)
# A list that a form of the examples has options from, and its name there.
_LIST = "seenwith"
_SEEN_WITH = {
    "name": "Seen with",
    "options": [
        {"code": "eye", "label": "naked eye"},
        {"code": "binoculars", "label": "binoculars"},
        {"code": "small", "label": "small telescope"},
        {"code": "large", "label": "40 cm reflector"},
    ],
}
_ON_DESK = "volunteer"  # a template
_DAYS, _TRIES = 40, 20
# What demo forms call the practice calendars, their names, and the last part of their addresses.
_CALENDARS = (
    ("00000000-0000-4000-8000-0000000000c1", "Summit Dome", "summit"),
    ("00000000-0000-4000-8000-0000000000c2", "Harbour Deck", "harbour"),
)
# Of the team's account, which the practice bank knows from the beginning.
BANK_KEY = "practice-secret-alderlight-4711"


def load_demo(database: Database, *, examples: Path, sites: list[str], settings: Settings) -> None:
    """Load the demo data into a migrated database, all or nothing; does nothing where it is there already."""
    with database.connection() as connection:
        if people_store.find_team(connection, slug=TEAM):
            return
        team = _make_team(connection)
        who = team[0]
        # All of it in this one transaction.
        account = _add_account(connection, who, settings)
        within: Connect = lambda: nullcontext(connection)  # noqa: E731 - a name for what it is
        borrowers = make_groups_and_members(within, team, PASSWORD)
        known = make_tables(within, who, examples=examples, files=Path(settings.files))
        calendars = _add_calendars(connection, who, settings)
        shared = lists.create(within, who=who, document=_SEEN_WITH)
        for file, count in FORMS.items():
            text = (examples / file).read_text(encoding="utf-8").replace(f'"{_LIST}"', f'"{shared.hex}"')
            for name, calendar in calendars.items():
                text = text.replace(name, calendar)
            document = with_tables(json.loads(text), known)
            if document.get("payment"):
                document["payment"] |= {"practice": False, "account": str(account)}
            form = desk.import_form(within, who=who, document=document)
            desk.set_labels(connection, who=who, form=form, labels=_LABELS.get(file, ()))
            publishing.set_sites(connection, who=who, form=form, sites=sites)
            edition = publishing.publish(within, who=who, form=form, revision=1)
            if file == _GONE_ON_WITH:
                who_and_when.set_access(within, who=who, form=form, access=Access(kept_days=_KEPT_DAYS))
            program = Editions(within).program(form, edition)
            made = (
                _make_links(connection, settings, program, who=who, form=form, examples=examples)
                if file == _TALKS[0]
                else []
            )
            let_in(within, who, file=file, form=form)
            visitors = borrowers if file == LOAN else [GUEST]
            _answer(connection, program, Answering(form, edition, count, made, visitors))
            visit(connection, program, form=form, sent=count, days=_DAYS)
            work_with(within, file=file, form=form, team=team, count=count)
            deciding = Way(connect=within, editions=Editions(within), settings=settings)
            demo_decisions.decide(deciding, form=form, count=count, team=team)
        _fill_desk(within, team[1])


def _add_calendars(connection: Connection, who: SignedIn, settings: Settings) -> dict[str, str]:
    """Take up the practice calendars; return their ids, by what demo forms call them."""
    ids = {}
    for called, name, place in _CALENDARS:
        address = f"{settings.practice_calendar}/caldav/alderlight/{place}/"
        made = calendar_store.insert_calendar(
            connection,
            team=who.team_id,
            name=name,
            address=address,
            user_name="alderlight",
            password=encrypted("practice", settings),
        )
        ids[called] = str(made)
    return ids


def _fill_desk(connect: Connect, who: SignedIn) -> None:
    """Put a form that was begun alone on somebody's own desk; it can be moved to the team."""
    own = moving.own_desk(connect, who=who)
    with connect() as connection:
        there = people_store.as_signed_in(connection, person=who.person_id, team=own)
    form = desk.import_form(connect, who=there, document=templates.find_template(_ON_DESK).document)
    publishing.publish(connect, who=there, form=form, revision=1)


def _make_links(
    connection: Connection, settings: Settings, program: Program, *, who: SignedIn, form: UUID, examples: Path
) -> list[Sealed]:
    """Make the sealed links of the talks, and return them."""
    _, file, columns = _TALKS
    table = read_table((examples / file).read_bytes())
    making = Making(name=file, columns=columns, email="E-mail")
    planned = links.plan(program, table, making)
    batch = links.make(
        lambda: nullcontext(connection), settings, program, who=who, form=form, planned=planned, making=making
    )
    made = links.all_links(connection, who=who, form=form, batch=batch)
    return [Sealed(id=each.id, batch=batch, given=each.given, uses=None) for each in made]


def _add_account(connection: Connection, who: SignedIn, settings: Settings) -> UUID:
    """Add the team's account with the practice bank and return its id."""
    known = {
        "provider": PRACTICE_BANK,
        "name": "Alderlight Observatory",
        "public_key": "practice-public-alderlight",
        "secret": encrypted(BANK_KEY, settings),
        "last_four": BANK_KEY[-4:],
        "cards": ["Aster", "Boreal", "Comet"],
    }
    return payments.insert_account(connection, team=who.team_id, known=known)


def _make_team(connection: Connection) -> list[SignedIn]:
    team = people_store.insert_team(connection, slug=TEAM, name="Alderlight Observatory")
    hashed = hash_password(PASSWORD)
    return [
        people.make_person(connection, team=team, role=role, email=email, name=name, password_hash=hashed)
        for role, email, name in PEOPLE
    ]


@dataclass(frozen=True, slots=True)
class Answering:
    """How a form of the demo is answered: how often, by which links, and by whom."""

    form: UUID
    edition: int
    count: int
    links: Sequence[Sealed]
    visitors: Sequence[Visitor]


def _answer(connection: Connection, program: Program, how: Answering) -> None:
    form, links = how.form, how.links
    random = Random(f"{TEAM} {program.form.name}")  # noqa: S311 - the same demo every time
    now = datetime.datetime.now(datetime.UTC)
    ages = sorted((random.random() ** 1.3 * _DAYS for _ in range(how.count)), reverse=True)
    for index, age in enumerate(ages):
        at = now - datetime.timedelta(days=age)
        sealed = links[min(int(random.expovariate(0.3)), len(links) - 1)] if links else None
        link = dict(sealed.given) if sealed else {}
        visitor = random.choice(how.visitors)
        context = context_of(program.form, link, at=at, tables=tables_in(connection, form), visitor=visitor)
        came = random.choices([way for way, _ in _WAYS], [often for _, often in _WAYS])[0]
        for _ in range(_TRIES):
            incoming = Incoming(
                form=form,
                edition=how.edition,
                key=f"demo-{index:06}",
                given=Given(answers=sample_answers(program, random, context), link=link, visitor=visitor),
                came=came | {"seconds": random.randint(20, 400)},
                sealed=sealed,
            )
            # Who finds nothing of a kind at a site looks for something else.
            if not isinstance(receive(connection, program, incoming, at=at), Refused):
                break
