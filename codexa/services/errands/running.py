"""Doing an errand: nothing is held while something outside is waited for, and each outcome is kept."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from uuid import UUID

from codexa.services import continuing, digests, importing, links
from codexa.services.accounts import notices
from codexa.services.approvals import asking as approvals
from codexa.services.approvals import mails as approval_mails
from codexa.services.bookings.booking import MOVE_UP
from codexa.services.bookings.moving_up import move_up
from codexa.services.editions import Editions
from codexa.services.errands.asking import TASK
from codexa.services.errands.told_failures import failures_mail
from codexa.services.follow_ups import mailing
from codexa.services.follow_ups.carrying_out import PAUSES, Waits, try_later
from codexa.services.follow_ups.outcomes import NeverError, TryLaterError
from codexa.services.members import mails as member_mails
from codexa.services.parts import mails as part_mails
from codexa.services.parts.standing import ARRIVED
from codexa.services.payments.reconciling import differences
from codexa.services.payments.settling import Way as Paying
from codexa.services.response_set import export_files, filling, in_bulk
from codexa.services.response_set.opening import INDEX_ERRAND
from codexa.services.tables import drift, naming, working_out
from codexa.services.tables import importing as table_importing
from codexa.services.tables.tables import HELD_AGAINST
from codexa.services.tidying import tidy
from codexa.settings import Settings
from codexa.store import errands
from codexa.store.database import Connect
from codexa.store.errands import Errand

_MOST_TRIES = 6


@dataclass(frozen=True, kw_only=True, slots=True)
class Way:
    """What an errand is done with."""

    connect: Connect
    settings: Settings


Do = Callable[[Way, Errand], str]


def _mail(make: notices.Make) -> Do:
    """Return what makes a mail and sends it; where there is none to send, that is how it ended."""

    def send(way: Way, errand: Errand) -> str:
        content = make(way.connect, way.settings, errand.about)
        if content is None:
            return "nothing to send any more"
        return mailing.send(content, key=f"errand.{errand.id}", settings=way.settings)

    return send


def _tidy(way: Way, _errand: Errand) -> str:
    with way.connect() as connection:
        done = tidy(connection, Path(way.settings.files))
    export_files.tidy(way.connect, Path(way.settings.files))
    return f"{done.uploads} uploads, {done.states} saved states and {done.pictures} pictures were not needed any more"


def _compare_payments(way: Way, _errand: Errand) -> str:
    found = differences(Paying(connect=way.connect, editions=Editions(way.connect), settings=way.settings))
    if found:
        raise NeverError(" ".join(found))
    return "the bank and we know the same"


def _mail_links(way: Way, errand: Errand) -> str:
    return links.send_mails(way.connect, way.settings, errand.about, errand.team_id)


def _take_up(way: Way, errand: Errand) -> str:
    form = UUID(errand.about["form"])
    return filling.fill(way.connect, Editions(way.connect), form, way.settings.database)


def _index(way: Way, errand: Errand) -> str:
    made = filling.index(way.settings.database, UUID(errand.about["form"]))
    return "indexes made" if made else "there are too few responses to need any"


def _in_bulk(way: Way, errand: Errand) -> str:
    doing = in_bulk.Way(connect=way.connect, editions=Editions(way.connect), files=Path(way.settings.files))
    return in_bulk.carry_out(doing, UUID(errand.about["bulk"]))


def _take_in(way: Way, errand: Errand) -> str:
    return importing.carry_out(way.connect, Editions(way.connect), UUID(errand.about["import"]))


def _take_in_records(way: Way, errand: Errand) -> str:
    return table_importing.carry_out(way.connect, UUID(errand.about["import"]))


def _work_out_records(way: Way, errand: Errand) -> str:
    about = errand.about
    team, table = UUID(about["team"]), UUID(about["table"])
    return working_out.carry_out(way.connect, team=team, table_id=table, revision=about["revision"])


def _call_records_anew(way: Way, errand: Errand) -> str:
    about = errand.about
    return naming.carry_out(way.connect, table=UUID(about["table"]), numbers=about["numbers"], step=about["step"])


def _hold_against(way: Way, errand: Errand) -> str:
    about, editions = errand.about, Editions(way.connect)
    if "form" not in about:
        return drift.carry_out(way.connect, editions, UUID(about["table"]))
    drift.note(way.connect, editions, UUID(about["form"]), about["edition"])
    return "held against its tables"


def _move_up(way: Way, errand: Errand) -> str:
    paying = Paying(connect=way.connect, editions=Editions(way.connect), settings=way.settings)
    return move_up(paying, UUID(errand.about["form"]), errand.about["name"])


def _make_file(way: Way, errand: Errand) -> str:
    folder = Path(way.settings.files)
    return export_files.make(way.connect, Editions(way.connect), folder, UUID(errand.about["file"]))


_KINDS: dict[str, Do] = {
    filling.ERRAND: _take_up,
    INDEX_ERRAND: _index,
    MOVE_UP: _move_up,
    in_bulk.ERRAND: _in_bulk,
    export_files.ERRAND: _make_file,
    importing.ERRAND: _take_in,
    working_out.ERRAND: _work_out_records,
    table_importing.ERRAND: _take_in_records,
    naming.ERRAND: _call_records_anew,
    HELD_AGAINST: _hold_against,
    links.ERRAND: _mail_links,
    continuing.ERRAND: _mail(continuing.link_mail),
    "tidying up": _tidy,
    "payments compared with the bank": _compare_payments,
    digests.ERRAND: _mail(digests.digest_mail),
    "failed follow-ups told": _mail(failures_mail),
    "test mail": _mail(notices.mail_that_works),
    "mail tried": _mail(notices.tried_mail),
    "link for a new password": _mail(notices.password_link),
    "invitation": _mail(notices.invitation),
    "password changed": _mail(notices.password_changed),
    "new address asked for at the old one": _mail(notices.address_at_old),
    "new address asked for at itself": _mail(notices.address_at_new),
    "address changed": _mail(notices.address_changed),
    member_mails.SIGN_IN: _mail(member_mails.sign_in_mail),
    member_mails.INVITATION: _mail(member_mails.invitation_mail),
    member_mails.ADDRESS: _mail(member_mails.address_mail),
    ARRIVED: _mail(part_mails.arrived_mail),
    approvals.ASKED: _mail(approval_mails.asked_mail),
    approvals.REMINDER: _mail(approval_mails.reminder_mail),
    approvals.OVERDUE: _mail(approval_mails.overdue_mail),
}


def run_errand(connect: Connect, settings: Settings, errand_id: int) -> Waits | None:
    """Do an errand; return Waits where a job was kept to try it again, None where it has ended, well or not."""
    with connect() as connection:
        errand = errands.take_errand(connection, errand=errand_id)
    if errand is None:
        return None
    try:
        result, state = _KINDS[errand.kind](Way(connect=connect, settings=settings), errand), "done"
    except NeverError as error:
        result, state = str(error), "failed"
    except TryLaterError as error:
        result, state = str(error), "failed" if errand.tries >= _MOST_TRIES else "waiting"
    with connect() as connection:
        errands.end_errand(connection, errand=errand.id, state=state, result=result[:1_000])
        if state != "waiting":
            return None
        return try_later(connection, TASK, {"errand": errand.id}, PAUSES[errand.tries - 1])
