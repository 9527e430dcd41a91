"""What the proof says: something wrong or doubtful, with its place and a remedy."""

from dataclasses import dataclass

from codexa.core.errors import Span
from codexa.core.formula.check import Severity


@dataclass(frozen=True, kw_only=True, slots=True)
class Finding:
    """Something wrong (an error stops publishing) or doubtful.

    `block` is the id of the block, page, row kind, figure or confirmation that it is about, None for the form;
    `setting` the setting; `span` the place in a formula.
    """

    severity: Severity
    code: str
    message: str
    remedy: str
    block: str | None = None
    setting: str | None = None
    span: Span | None = None


def error(code: str, message: str, remedy: str, owner: str | None = None, setting: str | None = None) -> Finding:
    """Return a finding that stops publishing."""
    return Finding(severity=Severity.ERROR, code=code, message=message, remedy=remedy, block=owner, setting=setting)


def doubt(code: str, message: str, remedy: str, owner: str | None = None, setting: str | None = None) -> Finding:
    """Return a finding that is shown and may be meant."""
    return Finding(severity=Severity.DOUBT, code=code, message=message, remedy=remedy, block=owner, setting=setting)
