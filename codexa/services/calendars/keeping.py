"""Keeping the entry of a response in a calendar: put, changed under the same UID, moved to another, or taken out."""

from datetime import UTC, date, datetime
from uuid import UUID

from codexa.services.calendars.entries import CalendarEntry, as_calendar
from codexa.services.calendars.server import CalDav, CalendarServer
from codexa.services.encryption import decrypted
from codexa.services.follow_ups.outcomes import Done, NeverError
from codexa.settings import Settings
from codexa.store import calendars as store
from codexa.store.calendars import CalendarRow, Entry
from codexa.store.database import Connect
from codexa.store.runs import Run


def keep(connect: Connect, run: Run, settings: Settings) -> Done:
    """Do with an entry what a run says; done again it comes to the same. Raises TryLaterError, NeverError.

    Nothing is held while the calendar is waited for. An entry that was changed later stays as it is.
    """
    content, wanted = run.content, UUID(run.content["calendar"])
    with connect() as connection:
        there = store.find_entry(connection, form=run.form_id, number=run.number, follow_up=run.follow_up)
        now_in = (
            None if there is None else store.calendar_of_form(connection, form=run.form_id, calendar=there.calendar_id)
        )
        calendar = store.calendar_of_form(connection, form=run.form_id, calendar=wanted)
    entry = content["entry"]
    if there is None and (content["only_change"] or entry["cancelled"]):
        return Done(result="there was no entry to change")
    if there is not None and there.sequence > entry["sequence"]:
        return Done(result="the entry was changed since; it stays as it is")
    uid = f"{entry['uid']}@{settings.mail_from.rpartition('@')[2]}"
    if there is not None and now_in is not None and (entry["cancelled"] or there.calendar_id != wanted):
        _server(now_in, settings).take_out(there.uid)
    if entry["cancelled"]:
        with connect() as connection:
            store.remove_entry(connection, form=run.form_id, number=run.number, follow_up=run.follow_up)
        return Done(result="taken out")
    if calendar is None:
        raise NeverError("The calendar was removed in Team. Choose another, and publish again.")
    _server(calendar, settings).put(uid, _written(run, uid, settings))
    with connect() as connection:
        store.put_entry(
            connection,
            form=run.form_id,
            number=run.number,
            follow_up=run.follow_up,
            calendar=wanted,
            uid=uid,
            sequence=entry["sequence"],
        )
    return Done(result=f"{_how(there, wanted)} {calendar.name}")


def _how(there: Entry | None, wanted: UUID) -> str:
    if there is None:
        return "put into"
    return "changed in" if there.calendar_id == wanted else "moved to"


def _server(calendar: CalendarRow, settings: Settings) -> CalendarServer:
    password = decrypted(calendar.password, settings)
    if password is None:
        raise NeverError(
            f"The password of {calendar.name} can't be read: it was encrypted with another CODEXA_ACCOUNT_KEYS. "
            "Enter it again in Team."
        )
    return CalDav(address=calendar.address, user_name=calendar.user_name, password=password, settings=settings)


def _written(run: Run, uid: str, settings: Settings) -> bytes:
    entry = run.content["entry"]
    starts, ends, guest = entry["starts"], entry["ends"], run.content["guest"]
    return as_calendar(
        [
            CalendarEntry(
                uid=uid,
                title=entry["title"],
                starts=datetime.fromisoformat(starts) if ends else date.fromisoformat(starts),
                ends=datetime.fromisoformat(ends) if ends else None,
                sequence=entry["sequence"],
                place=entry["place"],
                text=entry["text"],
                organiser=settings.mail_from if guest else "",
                guests=(guest,) if guest else (),
            )
        ],
        None,
        now=datetime.now(UTC),
    )
