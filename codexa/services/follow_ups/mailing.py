"""Sending a mail by SMTP (RFC 5321), with a Message-ID by which a repeat is known (RFC 5322, 3.6.4)."""

import smtplib
import ssl
from collections.abc import Mapping
from datetime import UTC, date, datetime
from email.headerregistry import Address
from email.message import EmailMessage
from email.policy import SMTP
from email.utils import formatdate
from pathlib import Path
from typing import Any
from uuid import UUID

from codexa.services import uploads
from codexa.services.calendars.entries import CalendarEntry, Method, as_calendar
from codexa.services.errors import NotFoundError, TooBusyError
from codexa.services.follow_ups.mail_layout import as_html, as_text
from codexa.services.follow_ups.mail_pictures import MailPicture, read_picture
from codexa.services.follow_ups.outcomes import NeverError, TryLaterError
from codexa.services.response_pdf import response_pdf
from codexa.settings import Settings

_SECONDS = 20  # for each answer of the mail server
_FOR_GOOD = range(500, 600)  # RFC 5321, 4.2.1: what is refused so is refused again


def message_id(key: str, settings: Settings) -> str:
    """Return the Message-ID of the mail that has this key."""
    return f"<{key}@{settings.mail_from.rpartition('@')[2]}>"


def message_of(content: Mapping[str, Any], *, key: str, settings: Settings) -> EmailMessage:
    """Return the mail; `key` is the same for every try.

    Raises NeverError where an address can't stand in a header or what is attached is gone, TryLaterError where a PDF
    could not be made yet.
    """
    message = EmailMessage(policy=SMTP)
    try:
        message["From"] = Address(display_name=content["from_name"] or "", addr_spec=settings.mail_from)
        for role in ("to", "cc"):
            if content[role]:
                message[role.capitalize()] = ", ".join(content[role])
        if content["reply_to"]:
            message["Reply-To"] = content["reply_to"]
        message["Subject"] = content["subject"]
    except (ValueError, IndexError) as error:
        raise NeverError(f"An address or the subject can't be written in a mail: {error}") from None
    message["Message-ID"] = message_id(key, settings)
    message["Date"] = formatdate(usegmt=True)
    message["Auto-Submitted"] = "auto-generated"  # RFC 3834: no automatic answer to it
    message.set_content(as_text(content["pieces"]))
    _add_html(message, content, key, Path(settings.files))
    _attach(message, content, settings)
    return message


def _add_html(message: EmailMessage, content: Mapping[str, Any], key: str, files: Path) -> None:
    """Add the HTML with the pictures that it shows, as parts of the mail (RFC 2387, RFC 2392)."""
    pictures: dict[str, tuple[str, MailPicture]] = {}

    def source(picture: str) -> str | None:
        if picture not in pictures:
            found = read_picture(picture, files)
            if found is None:
                return None
            pictures[picture] = (f"{len(pictures) + 1}.{key}@pictures", found)
        return f"cid:{pictures[picture][0]}"

    message.add_alternative(as_html(content, source), subtype="html")
    page = message.get_payload()[-1]  # type: ignore[index]  # the alternative that was just added
    for name, picture in pictures.values():
        page.add_related(  # type: ignore[union-attr]
            picture.content, "image", picture.subtype, cid=f"<{name}>", disposition="inline"
        )


def _attach_entry(
    message: EmailMessage, content: Mapping[str, Any], entry: Mapping[str, Any], settings: Settings
) -> None:
    starts, ends = entry["starts"], entry["ends"]
    method: Method = "CANCEL" if entry["cancelled"] else "REQUEST"
    written = as_calendar(
        [
            CalendarEntry(
                uid=f"{entry['uid']}@{settings.mail_from.rpartition('@')[2]}",
                title=entry["title"],
                starts=datetime.fromisoformat(starts) if ends else date.fromisoformat(starts),
                ends=datetime.fromisoformat(ends) if ends else None,
                sequence=entry["sequence"],
                place=entry["place"],
                cancelled=entry["cancelled"],
                organiser=settings.mail_from,
                guests=tuple(content["to"]),
            )
        ],
        method,
        now=datetime.now(UTC),
    )
    message.add_attachment(written, "text", "calendar", filename="entry.ics", params={"method": method})


def _attach(message: EmailMessage, content: Mapping[str, Any], settings: Settings) -> None:
    files = Path(settings.files)
    if content["pdf"] is not None:
        name = f"{content['pdf']['title'][:80]} {content['pdf']['number']}.pdf"
        try:
            made = response_pdf(content["pdf"], files)
        except TooBusyError:
            raise TryLaterError("Other documents are being made; this one's turn did not come.") from None
        message.add_attachment(made, "application", "pdf", filename=name)
    # What was kept before there were entries has none.
    if (entry := content.get("entry")) is not None:
        _attach_entry(message, content, entry, settings)
    for file in content["files"]:
        try:
            written = uploads.content(files, UUID(file["id"])).read_bytes()
        except (NotFoundError, OSError):
            raise NeverError(f"{file['name']} is not there any more, so that it can't go along.") from None
        message.add_attachment(written, "application", "octet-stream", filename=file["name"])


def send(content: Mapping[str, Any], *, key: str, settings: Settings) -> str:
    """Send a mail to all its recipients and return what came of it, in words.

    Raises TryLaterError where the server is away, slow or asks to wait, NeverError where it refuses for good.
    """
    message = message_of(content, key=key, settings=settings)
    recipients = [*content["to"], *content["cc"], *content["bcc"]]
    try:
        with _server(settings) as server:
            refused = server.send_message(message, from_addr=settings.mail_from, to_addrs=recipients)
    except smtplib.SMTPRecipientsRefused as error:
        raise _refusal(error.recipients) from None
    except smtplib.SMTPResponseException as error:
        words = f"The mail server said {error.smtp_code}: {_words(error.smtp_error)}"
        raise (NeverError if error.smtp_code in _FOR_GOOD else TryLaterError)(words) from None
    except (OSError, smtplib.SMTPException) as error:
        raise TryLaterError(f"The mail server can't be reached: {error}") from None
    sent = f"sent to {', '.join(each for each in recipients if each not in refused)}"
    return sent + (f"; refused: {_listed(refused)}" if refused else "")


def _server(settings: Settings) -> smtplib.SMTP:
    server = smtplib.SMTP(settings.smtp_host, int(settings.smtp_port), timeout=_SECONDS)
    if settings.smtp_tls == "starttls":
        server.starttls(context=ssl.create_default_context())
    if settings.smtp_user:
        server.login(settings.smtp_user, settings.smtp_password)
    return server


def _refusal(refused: Mapping[str, tuple[int, bytes]]) -> Exception:
    later = any(code not in _FOR_GOOD for code, _ in refused.values())
    return (TryLaterError if later else NeverError)(f"The mail server refused {_listed(refused)}")


def _listed(refused: Mapping[str, tuple[int, bytes]]) -> str:
    return "; ".join(f"{address} ({code} {_words(said)})" for address, (code, said) in refused.items())


def _words(said: bytes | str) -> str:
    return said.decode("utf-8", "replace") if isinstance(said, bytes) else said
