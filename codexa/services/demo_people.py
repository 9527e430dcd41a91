"""The demo's groups and members: who keeps the domes, who may borrow, and which forms are for whom."""

from uuid import UUID

from codexa.core.form.access import Access
from codexa.services import groups, who_and_when
from codexa.services.members import roll
from codexa.services.signing_in import hash_password
from codexa.services.tables.records import Typed, change
from codexa.services.visitors import Visitor, visitor_named
from codexa.store import members as store
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

LOAN, SHARE, GRANT = "instrument_loan.json", "share_a_sighting.json", "small_grant.json"
_GROUPS = {
    "Dome keepers": ("Mira Okafor", "Jonas Lindqvist"),
    "Borrowers": (),
    "Observers": ("Aylin Demir",),
    "Readers": ("Mira Okafor", "Jonas Lindqvist"),
    "Treasury": ("Aylin Demir",),
}
_MEMBERS = (
    ("Liv Aasen", "liv.aasen@example.org", "Borrowers, Observers", "Harbour Deck"),
    ("Tomas Brand", "tomas.brand@example.org", "Borrowers", "Summit Dome"),
    ("Nadia Karimi", "nadia.karimi@example.org", "Borrowers, Dome keepers", "Summit Dome"),
    ("Oskar Wendel", "oskar.wendel@example.org", "Observers", ""),
    ("Ines Figueira", "ines.figueira@example.org", "Observers", "Harbour Deck"),
    ("Pavel Novotny", "pavel.novotny@example.org", "", ""),
)
_WITH_PASSWORD = 3  # of them: the others sign in by mail
_SITE = {"id": "site", "type": "short_text", "key": "home_site", "label": "Home site"}
_ACCESS = {
    LOAN: Access(who="groups", groups=("borrowers", "dome_keepers"), own=True, others="groups", kept_days=14),
    SHARE: Access(own=True, kept_days=14),
    GRANT: Access(own=True, kept_days=60),
}


def make_groups_and_members(connect: Connect, team: list[SignedIn], password: str) -> list[Visitor]:
    """Make the groups with their people, and the members; return those who borrow, as they fill in forms."""
    who = team[0]
    for name, inside in _GROUPS.items():
        code = groups.make(connect, who=who, name=name)
        for each in team:
            if each.person_name in inside:
                groups.set_in(connect, who=who, code=code, person=each.person_id, inside=True)
    table = roll.begin(connect, who=who, further=[_SITE])
    cells = [
        {"name": name, "email": email, "groups": in_groups, "site": site} for name, email, in_groups, site in _MEMBERS
    ]
    change(connect, who=who, table=table, changes=[Typed(number=None, revision=None, cells=each) for each in cells])
    hashed = hash_password(password)
    with connect() as connection:
        accounts = [store.as_member(connection, table=table, number=at) for at in range(1, len(_MEMBERS) + 1)]
        for member in accounts[:_WITH_PASSWORD]:
            store.set_password(connection, member=member, password_hash=hashed, staying=b"")
            store.note_confirmed(connection, member=member)
    return [
        _visitor(member, name, email)
        for member, (name, email, in_groups, _) in zip(accounts, _MEMBERS, strict=True)
        if "Borrowers" in in_groups
    ]


def _visitor(member: UUID, name: str, email: str) -> Visitor:
    named = visitor_named(email, name, ["borrowers"])
    return Visitor(facts=named.facts, groups=named.groups, member_id=member)


def let_in(connect: Connect, who: SignedIn, *, file: str, form: UUID) -> None:
    """Say who may fill in a form of the demo."""
    if file in _ACCESS:
        who_and_when.set_access(connect, who=who, form=form, access=_ACCESS[file])
