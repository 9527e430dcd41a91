"""Web addresses as somebody else wrote them: a person, a browser, a page."""

from urllib.parse import SplitResult, urlsplit


def parts_of(address: str) -> SplitResult:
    """Return the parts of a web address (RFC 3986); of what is none, such as "https://[", all are empty."""
    try:
        return urlsplit(address)
    except ValueError:
        return urlsplit("")
