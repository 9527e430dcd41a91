"""What names mean in a form, in a row of a repeat, and in a filter of options."""

import difflib
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any

from codexa.core.context import Context
from codexa.core.fields.field_type import Region
from codexa.core.fields.moments import shown_date
from codexa.core.fields.written import currency_text, decimal_text
from codexa.core.formula import convert
from codexa.core.formula.scope import Home, Reference
from codexa.core.formula.types import NUMBER, TEXT, Kind, Type
from codexa.core.formula.values import Choice, seen

Path = tuple[str, ...]
Presenter = Callable[[Any], str]


@dataclass(frozen=True, kw_only=True, slots=True)
class Entry:
    """What a name stands for: its reference, how visitors read its value, and whose it is (the id of its owner).

    `public` is false for what visitors may not know.
    """

    reference: Reference
    present: Presenter
    owner: str = ""
    public: bool = True


def presenter(region: Region) -> Presenter:
    """Return what shows a value of no field's own: a number in the form's language, a choice's label, text as it is."""

    def present(value: Any) -> str:
        if isinstance(value, Decimal):
            return decimal_text(seen(value, 10), region.locale, "#,##0.##########")
        if isinstance(value, Choice):
            return value.label
        if isinstance(value, list | tuple):
            return ", ".join(present(each) for each in value if each is not None)
        return convert.text(value)

    return present


_MOST_GUESSES = 100
_OF_PAYMENT = {
    "amount": Kind.MONEY,
    "number": Kind.TEXT,
    "status": Kind.TEXT,
    "refunded": Kind.MONEY,
    "receipt": Kind.NUMBER,
    "plan": Kind.TEXT,
    "charge": Kind.MONEY,
    "next": Kind.DATE,
}


# What is known of who is signed in (`visitor.email`).
VISITOR_FACTS = ("email", "name", "first", "last")


class FormScope:
    """Finds the fields, figures, repeats and columns of a form, and facts of the surroundings."""

    def __init__(
        self,
        entries: Mapping[Path, Entry],
        columns: Callable[[Path], Entry | None],
        region: Region,
        shown: Callable[[Path], Entry | None],
    ) -> None:
        self._entries = entries
        self._columns = columns
        self._shown = shown
        self._present = presenter(region)
        self._money = lambda amount: currency_text(amount, region.currency, region.locale)
        self._date = lambda day: shown_date(day, region.locale)
        # Each looks at every name; whoever has so many names wrong needs no guess at more of them.
        self._guesses_left = _MOST_GUESSES

    def entry(self, parts: Path) -> Entry | None:
        """Return what the name stands for, with how it is shown."""
        found = self._entries.get(parts) or self._of_surroundings(parts) or self._columns(parts)
        return found or self._shown(parts)

    def find(self, parts: Path) -> Reference | None:
        """Return what the name stands for."""
        entry = self.entry(parts)
        return entry.reference if entry else None

    def nearest(self, parts: Path) -> str | None:
        """Return a name that is written nearly so."""
        if self._guesses_left == 0:
            return None
        self._guesses_left -= 1
        known = [".".join(each) for each in self._entries]
        near = difflib.get_close_matches(".".join(parts), known, 1)
        return near[0] if near else None

    def _of_surroundings(self, parts: Path) -> Entry | None:
        if len(parts) != 2:
            return None
        name = parts[1]
        blank_text = Type(kind=TEXT.kind, may_be_blank=True)
        match parts[0]:
            case "link":
                return self._fact(blank_text, lambda context: context.link.get(name) or None)
            case "visitor" if name in VISITOR_FACTS:
                return self._fact(blank_text, lambda context: context.visitor.get(name) or None)
            case "response" if name == "number":
                return self._fact(Type(kind=NUMBER.kind, may_be_blank=True), response_number)
            case "response" if name == "page":
                return self._fact(blank_text, own_page)
            case "decision" if name in ("state", "remark", "by"):
                return self._fact(blank_text, lambda context: getattr(context.decision, name, None) or None)
            case "part" if name in ("name", "remark", "by"):
                return self._fact(blank_text, lambda context: getattr(context.handed_on, name, None) or None)
            case "payment" if name in _OF_PAYMENT:
                return self._of_payment(name)
        return None

    def _of_payment(self, name: str) -> Entry:
        def take(context: Context) -> Any:
            return None if context.payment is None else getattr(context.payment, name)

        entry = self._fact(Type(kind=_OF_PAYMENT[name], may_be_blank=True), take)
        present = {Kind.MONEY: self._money, Kind.DATE: self._date}.get(_OF_PAYMENT[name])
        return entry if present is None else replace(entry, present=present)

    def _fact(self, kind: Type, take: Callable[[Context], Any]) -> Entry:
        reference = Reference(slot=-1, type=kind, can_fail=False, home=Home.CONTEXT, facet=take)
        return Entry(reference=reference, present=self._present)


def own_page(context: Context) -> str | None:
    """The private address of the visitor's own page."""
    return context.own_page or None


def response_number(context: Context) -> Decimal | None:
    """Return the response's own number, once it is saved."""
    return None if context.number is None else Decimal(context.number)


class InnerScope:
    """Finds names of its own first, then those of the scope around it."""

    def __init__(
        self,
        entries: Mapping[Path, Entry],
        outer: "FormScope | InnerScope",
        shown: Callable[[Path], Entry | None] = lambda _: None,
    ) -> None:
        self._entries = entries
        self._outer = outer
        self._shown = shown

    def entry(self, parts: Path) -> Entry | None:
        """Return what the name stands for, with how it is shown."""
        return self._entries.get(parts) or self._shown(parts) or self._outer.entry(parts)

    def find(self, parts: Path) -> Reference | None:
        """Return what the name stands for."""
        entry = self.entry(parts)
        return entry.reference if entry else None

    def nearest(self, parts: Path) -> str | None:
        """Return a name that is written nearly so."""
        near = difflib.get_close_matches(".".join(parts), [".".join(each) for each in self._entries], 1)
        return near[0] if near else self._outer.nearest(parts)


AnyScope = FormScope | InnerScope
_OPTION = (
    (("option",), Type(kind=Kind.CHOICE)),
    (("option", "label"), TEXT),
    (("option", "counts_as"), NUMBER),
    (("option", "belongs_to"), Type(kind=Kind.TEXT, may_be_blank=True)),
)


def option_scope(outer: AnyScope) -> InnerScope:
    """Return the scope of a filter of options; an option's values stand in the order choice, label, number, group."""
    entries = {
        path: Entry(reference=Reference(slot=slot, type=kind, can_fail=False, home=Home.OPTION), present=convert.text)
        for slot, (path, kind) in enumerate(_OPTION)
    }
    return InnerScope(entries, outer)
