"""The calendars of a team: taken up once they answer, tried again, and removed where no form needs them."""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.program.findings import Finding
from codexa.core.program.follow_ups.calendars_gone import calendars_gone, calendars_named
from codexa.core.program.program import Program
from codexa.services.audit import note
from codexa.services.calendars.server import CalDav
from codexa.services.encryption import decrypted, encrypted
from codexa.services.errors import CalendarRefusedError, NotFoundError
from codexa.services.follow_ups.outcomes import NeverError, TryLaterError
from codexa.settings import Settings
from codexa.store import calendars as store
from codexa.store.calendars import Calendar
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn


@dataclass(frozen=True, kw_only=True, slots=True)
class NewCalendar:
    """A calendar as an owner enters it."""

    name: str
    address: str
    user_name: str
    password: str


def list_calendars(connect: Connect, *, who: SignedIn) -> list[Calendar]:
    """Return the team's calendars, by name."""
    with connect() as connection:
        return store.list_calendars(connection, team=who.team_id)


def gone(connect: Connect, form: UUID, program: Program) -> list[Finding]:
    """Return what a form says of calendars that its team does not have."""
    if not calendars_named(program):
        return []
    with connect() as connection:
        known = {str(each) for each in store.ids_for(connection, form=form)}
    return list(calendars_gone(program, known))


def add_calendar(connect: Connect, settings: Settings, *, who: SignedIn, new: NewCalendar) -> None:
    """Take up a calendar, once it answers. Raises CalendarRefusedError."""
    address = new.address.strip()
    _look(CalDav(address=address, user_name=new.user_name, password=new.password, settings=settings))
    secret = encrypted(new.password, settings)
    with connect() as connection:
        made = store.insert_calendar(
            connection,
            team=who.team_id,
            name=new.name.strip(),
            address=address,
            user_name=new.user_name,
            password=secret,
        )
        if made is None:
            raise CalendarRefusedError(f"There is a calendar {new.name.strip()} already. Give this one another name.")
        note(connection, who, "calendar added", name=new.name.strip())


def try_calendar(connect: Connect, settings: Settings, *, who: SignedIn, calendar: UUID) -> None:
    """See whether a calendar answers. Raises NotFoundError, CalendarRefusedError."""
    with connect() as connection:
        row = store.find_calendar(connection, team=who.team_id, calendar=calendar)
    if row is None:
        raise NotFoundError
    password = decrypted(row.password, settings)
    if password is None:
        raise CalendarRefusedError("Its password can't be read any more. Remove it, and enter it again.")
    _look(CalDav(address=row.address, user_name=row.user_name, password=password, settings=settings))


def remove_calendar(connect: Connect, *, who: SignedIn, calendar: UUID) -> None:
    """Remove a calendar that no form keeps entries in. Raises NotFoundError, CalendarRefusedError."""
    with connect() as connection:
        forms = store.forms_with(connection, team=who.team_id, calendar=calendar)
        if forms:
            raise CalendarRefusedError(
                f"Entries are kept in it by {', '.join(forms)}. Choose another calendar there first, and publish."
            )
        name = store.delete_calendar(connection, team=who.team_id, calendar=calendar)
        if name is None:
            raise NotFoundError
        note(connection, who, "calendar removed", name=name)


def _look(server: CalDav) -> None:
    try:
        server.look()
    except (NeverError, TryLaterError) as error:
        raise CalendarRefusedError(f"{error} Nothing was kept.") from None
