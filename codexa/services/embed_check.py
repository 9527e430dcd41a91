"""Looking whether a page of a website shows a form: the snippet on it, and whether the page's policy lets it work."""

import http.client
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from html.parser import HTMLParser
from urllib.parse import urljoin

from codexa.core.web_addresses import parts_of
from codexa.services.outgoing import ClosedPlaceError, NoPlaceError, beginning, outgoing
from codexa.settings import Settings

_MOST_BYTES = 2 * 1024 * 1024
_MOST_LED_ON = 3


@dataclass(frozen=True, kw_only=True, slots=True)
class Remark:
    """Something that was seen, in words; `good` says whether it is as it should be."""

    good: bool
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Wanted:
    """The form that is looked for: "team/form", where Codexa is, and which sites may show it (none: all)."""

    place: str
    base: str
    sites: list[str]


class _Page(HTMLParser):
    """What of a page tells of forms: places, scripts, frames, links, and a policy of its own."""

    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.places: list[dict[str, str]] = []
        self.scripts: list[str] = []
        self.frames: list[str] = []
        self.links: list[str] = []
        self.policies: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        """Take up one element."""
        known = {name: value or "" for name, value in attrs}
        if "data-codexa" in known:
            self.places.append(known)
        match tag:
            case "script" if known.get("src"):
                self.scripts.append(known["src"])
            case "iframe" if known.get("src"):
                self.frames.append(known["src"])
            case "a" if known.get("href"):
                self.links.append(known["href"])
            case "meta" if known.get("http-equiv", "").lower() == "content-security-policy":
                self.policies.append(known.get("content", ""))

    def parse_marked_section(self, i: int, report: bool = True) -> int:  # noqa: FBT002 - as Python has it
        """Pass over what HTML has no use for (HTML Standard, 13.2.5.42), where Python would give up."""
        return self.parse_bogus_comment(i, report)


def look(address: str, wanted: Wanted, settings: Settings) -> list[Remark]:
    """Fetch a page and return what is seen of the form there, first what keeps it from showing."""
    try:
        at, page, policies = _fetched(address, settings)
    except (NoPlaceError, ClosedPlaceError, TimeoutError) as error:
        return [Remark(good=False, words=f"The page could not be looked at: {error}")]
    return sorted(_remarks(at, page, [*policies, *page.policies], wanted), key=lambda each: each.good)


def _fetched(address: str, settings: Settings) -> tuple[str, _Page, list[str]]:
    for _ in range(_MOST_LED_ON + 1):
        call = outgoing(address, settings)
        try:
            call.connection.request("GET", call.target, headers={"User-Agent": "Codexa", "Accept": "text/html"})
            answer = call.connection.getresponse()
            body = beginning(answer, _MOST_BYTES)
        except (OSError, http.client.HTTPException, ValueError) as error:
            raise NoPlaceError(f"{call.parts.hostname} did not answer: {error}") from None
        finally:
            call.connection.close()
        if answer.status in (301, 302, 303, 307, 308) and (leads := answer.getheader("Location")):
            address = _joined(address, leads) or leads
            continue
        if answer.status != 200:
            raise NoPlaceError(f"{call.parts.hostname} answered {answer.status} instead of a page.")
        page = _Page()
        page.feed(_text(body, answer.headers.get_content_charset()))
        return address, page, answer.headers.get_all("Content-Security-Policy") or []
    raise NoPlaceError("The address leads on too often.")


def _text(body: bytes, charset: str | None) -> str:
    try:
        return body.decode(charset or "utf-8", "replace")
    except (LookupError, UnicodeError):
        return body.decode("utf-8", "replace")


def _joined(at: str, address: str) -> str:
    """Return where an address on a page leads; "" where it is none."""
    try:
        return urljoin(at, address)
    except ValueError:
        return ""


def _remarks(at: str, page: _Page, policies: list[str], wanted: Wanted) -> Iterator[Remark]:
    places = [each for each in page.places if each["data-codexa"].strip("/") == wanted.place]
    framed = f"{wanted.base}/embed/{wanted.place}"
    frames = [each for each in page.frames if _joined(at, each).split("?")[0].rstrip("/").startswith(framed)]
    links = [each for each in page.links if _joined(at, each).split("?")[0] == f"{wanted.base}/f/{wanted.place}"]
    scripts = [each for each in page.scripts if _is_ours(_joined(at, each), wanted.base)]
    for each in places:
        yield Remark(good=True, words=f"The form is there, {_WORDS.get(each.get('data-codexa-as', ''), _WORDS[''])}.")
    if frames:
        yield Remark(good=True, words="The form is there, in a plain frame.")
    if places and not scripts:
        yield Remark(good=False, words="The script is missing: only the link is seen. Copy the whole snippet.")
    if not places and not frames:
        others = sorted({each["data-codexa"] for each in page.places})
        seen = f" The page shows {', '.join(others)[:120]}." if others else ""
        there = "Only a link to the form is on this page." if links else "The form is not on this page."
        yield Remark(good=bool(links), words=there + seen)
    if places or frames:
        origin = "/".join(at.split("/")[:3])
        yield _of_sites(origin, wanted)
        yield from _of_policies(policies, wanted.base, needs_script=bool(places))


_WORDS = {
    "": "in the page",
    "page": "in the page",
    "pop-up": "as a pop-up",
    "tab": "behind a tab at the side",
    "corner": "in a window in the corner",
}


def _is_ours(script: str, base: str) -> bool:
    return script.split("?", maxsplit=1)[0] in (f"{base}/embed/1.js", f"{base}/embed.js")


def _of_sites(origin: str, wanted: Wanted) -> Remark:
    if wanted.sites and origin not in wanted.sites:
        words = f"{origin} is not among the websites that may show the form. Add it."
        return Remark(good=False, words=words)
    words = f"{origin} may show the form." if wanted.sites else "Any website may show the form."
    return Remark(good=True, words=words)


def _of_policies(policies: list[str], base: str, *, needs_script: bool) -> Iterator[Remark]:
    wanted = {"frame-src": ("frame-src", "child-src", "default-src")}
    if needs_script:
        wanted["script-src"] = ("script-src-elem", "script-src", "default-src")
    refused = sorted({name for policy in policies for name, chain in wanted.items() if not _lets(policy, chain, base)})
    for name in refused:
        what = "the frame" if name == "frame-src" else "the script"
        words = f"The page's Content-Security-Policy refuses {what}. Add {base} to its {name}."
        yield Remark(good=False, words=words)
    if policies and not refused:
        yield Remark(good=True, words="The page's Content-Security-Policy lets the form in.")


def _lets(policy: str, chain: tuple[str, ...], base: str) -> bool:
    """Say whether a policy (Content Security Policy Level 3, 6.7.2) lets something in from `base`."""
    directives: Mapping[str, list[str]] = {
        words[0].lower(): words[1:] for part in policy.split(";") if (words := part.split())
    }
    name = next((each for each in chain if each in directives), None)
    return name is None or any(_matches(source, base) for source in directives[name])


def _matches(source: str, base: str) -> bool:
    parts = parts_of(base)
    if source == "*" or source.lower() == f"{parts.scheme}:":
        return True
    told = parts_of(source if "://" in source else f"{parts.scheme}://{source}")
    host, own = told.hostname or "", parts.hostname or ""
    try:
        ports = (told.port, parts.port)
    except ValueError:
        return False
    same_host = host == own or (host.startswith("*.") and own.endswith(host[1:]))
    return told.scheme == parts.scheme and same_host and ports[0] == ports[1]
