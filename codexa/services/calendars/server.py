"""What is asked of a calendar's server, whoever runs it; and CalDAV (RFC 4791) as one that answers.

Calls go where our calls to typed addresses may go (`services.outgoing`), and wait no longer: a library of its own
network would go around that. What is needed of the protocol is putting an entry, taking it out, and looking.
"""

import base64
import http.client
from dataclasses import dataclass
from typing import Protocol
from urllib.parse import quote

from codexa.services.follow_ups.outcomes import NeverError, TryLaterError
from codexa.services.outgoing import ClosedPlaceError, NoPlaceError, beginning, outgoing
from codexa.settings import Settings

_MOST_BYTES = 64 * 1024  # of an answer
_GONE = (404, 410)
_LATER = (408, 423, 425, 429)  # RFC 9110, RFC 4918, RFC 8470, RFC 6585: at another time it may work
_LOOK = (
    b'<?xml version="1.0" encoding="utf-8"?>'
    b'<propfind xmlns="DAV:"><prop><resourcetype/><displayname/></prop></propfind>'
)


class CalendarServer(Protocol):
    """A server that keeps a calendar. All raise TryLaterError where it is away, and NeverError where it refuses."""

    def put(self, uid: str, entry: bytes) -> None:
        """Keep an entry (iCalendar, RFC 5545) under its UID, in the place of what was there."""

    def take_out(self, uid: str) -> None:
        """Take the entry of a UID out; where there is none, nothing is wrong."""

    def look(self) -> None:
        """See whether the calendar is there."""


@dataclass(frozen=True, kw_only=True, slots=True)
class CalDav:
    """A calendar by CalDAV: a collection at an address, for which a name and a password are needed (RFC 7617)."""

    address: str
    user_name: str
    password: str
    settings: Settings

    def put(self, uid: str, entry: bytes) -> None:
        """Keep an entry under its UID."""
        status = self._ask("PUT", self._place(uid), entry, {"Content-Type": "text/calendar; charset=utf-8"})
        if status in _GONE:
            raise NeverError("There is no such calendar at its address any more.")

    def take_out(self, uid: str) -> None:
        """Take the entry of a UID out."""
        self._ask("DELETE", self._place(uid), b"", {})

    def look(self) -> None:
        """See whether the calendar is there."""
        headers = {"Depth": "0", "Content-Type": "application/xml; charset=utf-8"}
        if self._ask("PROPFIND", self.address, _LOOK, headers) in _GONE:
            raise NeverError("There is no calendar at this address.")

    def _place(self, uid: str) -> str:
        return f"{self.address.rstrip('/')}/{quote(uid, safe='')}.ics"

    def _ask(self, method: str, address: str, body: bytes, headers: dict[str, str]) -> int:
        try:
            call = outgoing(address, self.settings)
        except ClosedPlaceError as error:
            raise NeverError(str(error)) from None
        except NoPlaceError as error:
            raise TryLaterError(str(error)) from None
        if call.parts.scheme != "https" and self.settings.mode != "demo":
            raise NeverError("Its address begins with http: the password would be sent in clear. Use https.")
        host = call.parts.hostname or ""
        signed = base64.b64encode(f"{self.user_name}:{self.password}".encode()).decode()
        known = {"Authorization": f"Basic {signed}", "User-Agent": "Codexa", **headers}
        try:
            call.connection.request(method, call.target, body, known)
            answer = call.connection.getresponse()
            beginning(answer, _MOST_BYTES)
        except (OSError, http.client.HTTPException, ValueError) as error:
            raise TryLaterError(f"The calendar at {host} did not answer: {error}") from None
        finally:
            call.connection.close()
        return _checked(host, answer.status)


def _checked(host: str, status: int) -> int:
    """Return a status that says that it was done, or that there is nothing. Raises TryLaterError, NeverError."""
    if 200 <= status < 300 or status in _GONE:
        return status
    if status in (401, 403):
        raise NeverError(f"The calendar at {host} refuses us ({status}): its name, its password or its rights.")
    if 300 <= status < 400:
        raise NeverError(f"The calendar at {host} has moved ({status}). Give its new address in Team.")
    later = status >= 500 or status in _LATER
    raise (TryLaterError if later else NeverError)(f"The calendar at {host} answered {status}.")
