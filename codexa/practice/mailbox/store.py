"""The mail that came, as files: one for each Message-ID, so that a repeat is no second mail."""

import hashlib
import json
import os
import time
from collections.abc import Iterator
from dataclasses import dataclass
from email import message_from_bytes
from email.message import EmailMessage
from email.policy import default
from pathlib import Path

FOLDER = Path(os.environ.get("PRACTICE_MAILBOX", "var/mailbox"))
MODES = {
    "take": "takes everything",
    "refuse": "refuses everything",
    "later": "asks to come again later",
    "slow": "takes everything, slowly",
    "lost": "takes it, and loses the line before it says so",
}


@dataclass(frozen=True)
class Mail:
    """A mail, when it came, for whom, and how often it was brought."""

    id: str
    at: float
    recipients: list[str]
    times: int
    message: EmailMessage

    @property
    def attachments(self) -> list[EmailMessage]:
        """What came along as files."""
        return [each for each in self.message.iter_attachments() if isinstance(each, EmailMessage)]

    def named(self, content_id: str) -> EmailMessage | None:
        """The part that the HTML shows by this Content-ID (RFC 2392)."""
        parts = (each for each in self.message.walk() if each["Content-ID"] == f"<{content_id}>")
        return next((each for each in parts if isinstance(each, EmailMessage)), None)

    @property
    def text(self) -> str:
        """Its plain text."""
        return self._part("plain")

    @property
    def html(self) -> str:
        """Its HTML, or nothing."""
        return self._part("html")

    def _part(self, kind: str) -> str:
        part = self.message.get_body((kind,))
        return part.get_content() if part is not None else ""


def keep(content: bytes, recipients: list[str]) -> None:
    """Keep a mail, or count that one came once more."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    message = message_from_bytes(content, policy=default)
    name = hashlib.sha256(str(message["Message-ID"] or content).encode()).hexdigest()[:16]
    about = FOLDER / f"{name}.json"
    known = json.loads(about.read_text()) if about.exists() else {"at": time.time(), "times": 0}
    _write(FOLDER / f"{name}.eml", content)
    _write(about, json.dumps(known | {"recipients": recipients, "times": known["times"] + 1}).encode())


def _write(path: Path, content: bytes) -> None:
    draft = path.with_suffix(f"{path.suffix}.{os.getpid()}")
    draft.write_bytes(content)
    draft.replace(path)


def all_mail() -> Iterator[Mail]:
    """Yield all mail, newest first."""
    found = [(json.loads(path.read_text()), path) for path in FOLDER.glob("*.json") if path.stem != "mode"]
    for about, path in sorted(found, key=lambda each: -each[0]["at"]):
        content = path.with_suffix(".eml").read_bytes()
        message = message_from_bytes(content, policy=default)
        assert isinstance(message, EmailMessage)
        yield Mail(path.stem, about["at"], about["recipients"], about["times"], message)


def find(mail: str) -> Mail | None:
    """Return one mail."""
    return next((each for each in all_mail() if each.id == mail), None)


def empty() -> None:
    """Throw all mail away."""
    for path in [*FOLDER.glob("*.eml"), *(each for each in FOLDER.glob("*.json") if each.stem != "mode")]:
        path.unlink(missing_ok=True)


def mode() -> str:
    """Return how mail is taken just now."""
    path = FOLDER / "mode.json"
    chosen = json.loads(path.read_text()) if path.exists() else "take"
    return chosen if chosen in MODES else "take"


def set_mode(chosen: str) -> None:
    """Take mail otherwise from now on."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    _write(FOLDER / "mode.json", json.dumps(chosen).encode())
