"""A form from pasted text: one line a field, with a star, a type, limits and options after a colon.

# Your visit
Group size* number 1..60
Way to come*: On foot, By bus, By car = €5
Star chart €14.90
T-shirt product: Blue €11, Grey €11
Anything else long text
## Guests (rows)
Name*
"""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from decimal import Decimal
from functools import cache
from html import escape
from typing import Any

from codexa.core.definition.keys import code_from, key_from
from codexa.core.errors import FormulaSyntaxError
from codexa.core.fields import BLOCK_TYPES
from codexa.core.formula.parse import parse

MAX_LINES = 500
MAX_LINE = 2_000  # characters
_TOO_LONG = f"This line is longer than {MAX_LINE} characters; break it into several."
_LIMITS = re.compile(r"\s+(?P<least>-?\d+(?:[.,]\d+)?)?\s*\.\.\s*(?P<most>-?\d+(?:[.,]\d+)?)?\s*$")
_SIGN = r"(?:[€$£¥₣₹₽₺₩]|[A-Z]{3})"
_NUMBER = r"-?\d+(?:[.,]\d+)?"
_OPTION_NUMBER = re.compile(rf"^(?P<label>.*\S)\s*=\s*{_SIGN}?\s*(?P<number>{_NUMBER})\s*{_SIGN}?$")
# A price in the label is its number too where a currency says that it is one: "By car (€5)", "By car – 5 EUR".
_PRICE = re.compile(
    rf"^(?P<label>.*[^\s(–-])\s*[(–-]?\s*(?:{_SIGN}\s*(?P<before>{_NUMBER})|(?P<after>{_NUMBER})\s*{_SIGN})\)?$"
)
_PAGE = re.compile(r"^#(?!#)\s*(?P<title>.*?)(?:\s+if\s+(?P<when>.+))?$")
_PART = re.compile(r"^##+\s*(?P<title>.*?)\s*(?P<rows>\((?:rows|repeat)\))?$", re.IGNORECASE)
_CONTENT = re.compile(r"^(?P<kind>heading|text|statement)\s*:\s*(?P<words>.+)$", re.IGNORECASE)
_BULLET = re.compile(r"^\s*(?:[-•*]|\d+[.)])\s+")
_HOLDING = ("group", "repeat")
# A comma between two digits is a decimal comma: "By car = 3,5".
_BETWEEN_OPTIONS = re.compile(r"[;|]|,(?!\d)|(?<!\d),")
# Types whose word is a usual end of a label: "Your name", "Home address" keep it.
_SAID_IN_LABELS = frozenset(
    {"name", "email", "phone", "address", "web_address", "date", "time", "signature", "consent"}
)
# Words that people write for a type beside its title; a yes/no asked in words is one too.
_WORDS = {
    "text": "short_text",
    "line": "short_text",
    "paragraph": "long_text",
    "amount": "money",
    "mail": "email",
    "email": "email",
    "telephone": "phone",
    "link": "web_address",
    "checkbox": "yes_no",
    "yes/no": "yes_no",
    "whole number": "number",
    "integer": "number",
    "choices": "several_choices",
    "several": "several_choices",
    "list": "dropdown",
    "photo": "file_upload",
    "upload": "file_upload",
    "file": "file_upload",
    "stars": "rating",
}
# Labels that say what is asked for without naming a type.
_TELLING = [
    (re.compile(r"\be-?mail\b", re.IGNORECASE), "email"),
    (re.compile(r"\b(phone|telephone|mobile)\b", re.IGNORECASE), "phone"),
    (re.compile(r"\b(website|web address)\b", re.IGNORECASE), "web_address"),
    (re.compile(r"^(your |full |first and last )?name$", re.IGNORECASE), "name"),
    (re.compile(r"\b(postal |home )?address$", re.IGNORECASE), "address"),
    (re.compile(r"\b(date|day)\b", re.IGNORECASE), "date"),
    (re.compile(r"\b(number of|how many|size)\b", re.IGNORECASE), "number"),
    (re.compile(r"\b(message|comments?|anything else|remarks?)\b", re.IGNORECASE), "long_text"),
]


@dataclass(frozen=True, kw_only=True, slots=True)
class OutlineLine:
    """A line of the text: what it makes in words, or what was not understood of it; `number` counts from 1."""

    number: int
    text: str
    makes: str
    problem: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class Outlined:
    """The pages of a form's document, and what became of every line that is not blank."""

    pages: list[dict[str, Any]]
    lines: list[OutlineLine]


@dataclass(kw_only=True, slots=True)
class _Making:
    new_id: Callable[[], str]
    pages: list[dict[str, Any]] = field(default_factory=list)
    lines: list[OutlineLine] = field(default_factory=list)
    keys: set[str] = field(default_factory=set)
    before: dict[str, Any] | None = None
    inside: list[dict[str, Any]] | None = None  # the blocks of the group or row kind that is being filled

    def page(self, title: str) -> None:
        self.pages.append({"id": self.new_id(), "title": title[:500], "blocks": []})
        self.before = self.inside = None

    def part(self, title: str, *, rows: bool) -> tuple[str, str]:
        """Begin a group, or a repeat of rows; it goes on to the next line that begins with #."""
        self.inside = None
        kind, label = ("repeat" if rows else "group"), title[:500]
        block: dict[str, Any] = {
            "id": self.new_id(),
            "type": kind,
            "key": _key(label or kind, self.keys),
            "label": label,
        }
        blocks: list[dict[str, Any]] = []
        if rows:
            block["kinds"] = [{"id": self.new_id(), "key": "row", "label": label or "row", "blocks": blocks}]
        else:
            block["blocks"] = blocks
        self.block(block)
        self.inside, self.before = blocks, None
        return ("rows, of what follows" if rows else "a group, of what follows"), ""

    def block(self, block: dict[str, Any]) -> None:
        if not self.pages:
            self.page("")
        (self.pages[-1]["blocks"] if self.inside is None else self.inside).append(block)
        self.before = block


def read_outline(text: str, new_id: Callable[[], str]) -> Outlined:
    """Return what pasted text makes; `new_id` gives an id that nothing else has.

    A line that begins with # begins a page ("# Coach if people > 20" is shown only then), with ## a group, or rows
    ("## Guests (rows)"); lines set in under a field are its options; "heading:" and "text:" make what is read only; a
    line that is no more than words makes a field for a line of text, or one that its label tells.
    """
    making = _Making(new_id=new_id)
    for number, line in enumerate(text.splitlines()[:MAX_LINES], 1):
        if line.strip():
            makes, problem = _take(_plain(line), making) if len(line) <= MAX_LINE else ("", _TOO_LONG)
            text_shown = line.strip()[:MAX_LINE]
            making.lines.append(OutlineLine(number=number, text=text_shown, makes=makes, problem=problem))
    if not making.pages:
        making.page("")
    return Outlined(pages=making.pages, lines=making.lines)


def _plain(line: str) -> str:
    """Return a line with single spaces: patterns that look for runs of them would go over each again and again."""
    return (" " if line[:1].isspace() else "") + " ".join(line.split())


def _take(line: str, making: _Making) -> tuple[str, str]:
    if (page := _PAGE.match(line.strip())) is not None:
        return _take_page(page, making)
    if (part := _PART.match(line.strip())) is not None:
        return making.part(part["title"], rows=bool(part["rows"]))
    if (content := _CONTENT.match(_BULLET.sub("", line).strip())) is not None:
        kind = "heading" if content["kind"].lower() == "heading" else "text"
        words = content["words"][:500]
        text = words if kind == "heading" else f"<p>{escape(words, quote=False)}</p>"
        making.block({"id": making.new_id(), "type": kind, "key": _key(kind, making.keys), "text": text})
        return f"a {kind}", ""
    if line[:1].isspace() and making.before is not None:
        return _take_option(line.strip(), making.before, making)
    return _take_field(_BULLET.sub("", line).strip(), making)


def _take_page(page: re.Match[str], making: _Making) -> tuple[str, str]:
    when = page["when"] or ""
    try:
        if when:
            parse(when)
    except FormulaSyntaxError as error:
        making.page(page[0].lstrip("# "))
        return "a page", f"“if {when}” is no condition: {error.message}"
    making.page(page["title"])
    if when:
        making.pages[-1]["shown"] = when
    return f"a page, shown when {when}" if when else "a page", ""


def _take_option(text: str, block: dict[str, Any], making: _Making) -> tuple[str, str]:
    if "options" not in block:
        if block["type"] != "short_text":
            return "", f"{block['label']} takes no options; write this line without the space before it."
        block.update(type="single_choice", options=[])
    block["options"].append(_option(_BULLET.sub("", text), block, making))
    return f"an option of {block['label']}", ""


def _take_field(text: str, making: _Making) -> tuple[str, str]:
    label, _, listed = text.partition(":")
    options = [each.strip() for each in _BETWEEN_OPTIONS.split(listed) if each.strip()]
    label, cost = (label, None) if options else _cost(label)
    label, least, most, problem = _limits(label)
    label, kind = _kind(label)
    kind = "product" if cost is not None and kind is None else kind
    label, unknown = _after_star(label) if kind is None else (label, "")
    required = label.rstrip().endswith("*")
    label = label.rstrip().rstrip("*").strip()
    kind = kind or ("single_choice" if options else _told(label))
    if not label:
        return "", "There is no label in this line; begin it with what you ask for."
    block: dict[str, Any] = {"id": making.new_id(), "type": kind, "key": _key(label, making.keys), "label": label[:500]}
    if required:
        block["required"] = "TRUE"
    if cost is not None and "price" in _settings(kind):
        block["price"] = cost
    elif cost is not None:
        problem = f"{_title(kind)} has no price; {cost} was left out."
    problem = _take_limits(block, least, most) or problem
    if unknown:
        problem = f"“{unknown}” is no kind of field that is known here; it was left out."
    if options:
        if "options" not in _settings(kind):
            problem = f"{_title(kind)} takes no options; they were left out."
        else:
            block["options"] = []
            for option in options:
                block["options"].append(_option(option, block, making))
    elif "options" in _settings(kind):
        block["options"] = []
    making.block(block)
    return _in_words(block), problem


def _cost(label: str) -> tuple[str, str | None]:
    """Take a price off the end of a label, where a currency says that it is one, or it follows the word product."""
    price, found = _PRICE.match(label.strip()), _OPTION_NUMBER.match(label.strip())
    if found is not None and found["label"].lower().endswith("product"):
        return found["label"], found["number"].replace(",", ".")
    if price is None:
        return label, None
    return price["label"], (price["before"] or price["after"]).replace(",", ".")


def _after_star(label: str) -> tuple[str, str]:
    """Return a label up to its star, and what stands after it: words that should have been a type."""
    found = re.fullmatch(r"(.*\S\*)\s+(.+)", label.strip())
    return (found[1], found[2]) if found else (label, "")


def _in_words(block: dict[str, Any]) -> str:
    words = [_title(block["type"]).lower()]
    if "required" in block:
        words.append("must be answered")
    words += [f"costs {block['price']}"] if "price" in block else []
    limits = [f"{word} {block[name]}" for name, word in _LIMIT_WORDS.items() if name in block]
    words += [" ".join(limits)] if limits else []
    if block.get("options"):
        name = _number_of_option(block["type"])
        options = ", ".join(
            each["label"] + (f" = {each[name]}" if each[name] != "0" else "") for each in block["options"]
        )
        words.append(f"{len(block['options'])} options: {options}")
    return ", ".join(words)


_LIMIT_WORDS = {"minimum": "from", "least": "from", "min_length": "from", "maximum": "to", "most": "to",
                "max_length": "to"}  # fmt: skip


def _limits(label: str) -> tuple[str, str | None, str | None, str]:
    found = _LIMITS.search(label)
    if found is None:
        return label, None, None, ""
    least, most = ((found[name] or "").replace(",", ".") or None for name in ("least", "most"))
    wrong = least is not None and most is not None and Decimal(least) > Decimal(most)
    problem = f"{least}..{most} begins above its end; the limits were left out." if wrong else ""
    return label[: found.start()], None if wrong else least, None if wrong else most, problem


_IN_PIECES = ("product", "quantity")


def _take_limits(block: dict[str, Any], least: str | None, most: str | None) -> str:
    if least is None and most is None:
        return ""
    settings = _settings(block["type"])
    for names in (("minimum", "maximum"), ("least", "most"), ("min_length", "max_length")):
        if all(name in settings for name in names):
            whole = isinstance(settings[names[1]], int) or "min_length" in names or block["type"] in _IN_PIECES
            for name, limit in zip(names, (least, most), strict=True):
                if limit is not None and (not whole or limit.isdigit()):
                    block[name] = int(limit) if whole else limit
            return ""
    return f"{_title(block['type'])} has no limits of that kind; they were left out."


def _kind(label: str) -> tuple[str, str | None]:
    """Take the words of a type off the end of a label."""
    for words, kind in _type_words():
        ending = re.search(rf"(?<=\S)\s*\(?\b{re.escape(words)}\)?$", label.rstrip(), re.IGNORECASE)
        if ending is None or not label[: ending.start()].strip(" *"):
            continue
        before = label[: ending.start()].rstrip()
        set_apart = before.endswith("*") or "(" in ending[0]
        return label if kind in _SAID_IN_LABELS and not set_apart else before, kind
    return label, None


def _type_words() -> Iterator[tuple[str, str]]:
    titles = {each.title.lower(): each.name for each in BLOCK_TYPES if each.name not in _HOLDING and _asks(each.name)}
    yield from sorted((titles | _WORDS).items(), key=lambda item: -len(item[0]))


def _told(label: str) -> str:
    return next((kind for pattern, kind in _TELLING if pattern.search(label)), "short_text")


def _asks(kind: str) -> bool:
    return "default" in _settings(kind)


@cache
def _blanks() -> dict[str, dict[str, Any]]:
    return {each.name: each.blank().model_dump(mode="json") for each in BLOCK_TYPES if each.name not in _HOLDING}


def _settings(kind: str) -> dict[str, Any]:
    return _blanks()[kind]


def _title(kind: str) -> str:
    return next(each.title for each in BLOCK_TYPES if each.name == kind)


def _number_of_option(kind: str) -> str:
    """Return what a number behind an option is: its price, or what it counts as."""
    return "price" if kind == "product" else "counts_as"


def _option(text: str, block: dict[str, Any], making: _Making) -> dict[str, Any]:
    found, price = _OPTION_NUMBER.match(text), _PRICE.match(text)
    label, number = (found["label"], found["number"]) if found else (text, block.get("price", "0"))
    if price and not found:
        label, number = price["label"], price["before"] or price["after"]
    number = number.replace(",", ".")
    code = code_from(label, {each["code"] for each in block["options"]})
    name = _number_of_option(block["type"])
    return {"id": making.new_id(), "code": code, "label": label[:500], name: number}


def price_in(label: str) -> Decimal | None:
    """Return the amount with a currency that ends a label, or None: 5 of "By car (€5)"."""
    price = _PRICE.match(" ".join(label.split()))
    return None if price is None else Decimal((price["before"] or price["after"]).replace(",", "."))


def _key(label: str, taken: set[str]) -> str:
    key = key_from(label, taken)
    taken.add(key)
    return key
