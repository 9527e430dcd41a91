"""Invented people and places for sample answers: one person fills in one sample."""

import unicodedata
from dataclasses import dataclass
from random import Random

_FIRST = ("Mira", "Jonas", "Aylin", "Tomás", "Ingrid", "Kofi", "Yuki", "Salma", "Pavel", "Noor", "Elif", "Marten")
_LAST = ("Okafor", "Lindqvist", "Demir", "Reyes", "Haugen", "Mensah", "Tanaka", "Haddad", "Novak", "Sørensen", "Weiss")
STREETS = ("Observatory Lane", "Harbour Street", "Summit Road", "Lantern Walk", "Old Mill Path")
TOWNS = ("Alderlight", "Port Ferrow", "Nether Combe", "Sandholm", "Upper Wick")
# What is written into a line of text, by a word in its label; the first that fits.
_BY_LABEL: tuple[tuple[tuple[str, ...], tuple[str, ...]], ...] = (
    (("school", "class"), ("Harbour School", "Upper Wick Grammar School", "Sandholm Primary")),
    (("town", "city", "place", "where"), TOWNS),
    (("street",), STREETS),
    (("club", "group", "organisation", "company"), ("Lantern Star Club", "Ferrow Walkers", "Wick & Co")),
    (("object", "target", "star", "what you saw", "seen"), ("M 31", "Saturn", "The Pleiades", "NGC 869")),
    (
        ("title", "subject", "topic", "talk"),
        ("Rings in a small telescope", "Dark skies", "A night of meteors"),
    ),
    (("instrument", "telescope", "lens", "camera"), ("80 mm refractor", "8-inch reflector", "135 mm lens")),
    (("nick", "board", "first name"), _FIRST),
    (("car", "plate"), ("AL-204", "PF-77", "UW-1180")),
)
_OTHERWISE = ("We look forward to it", "As last year", "By the east door", "Nothing special")


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody invented, with an e-mail address that belongs to the name."""

    first: str
    last: str
    number: int

    @property
    def name(self) -> str:
        """First and last name."""
        return f"{self.first} {self.last}"

    @property
    def email(self) -> str:
        """An address at example.org or example.com (RFC 2606)."""
        plain = unicodedata.normalize("NFKD", f"{self.first}.{self.last}".replace("ø", "o"))
        name = "".join(each for each in plain.lower() if each.isascii())
        return f"{name}{self.number or ''}@example.{'com' if self.number % 3 else 'org'}"


def somebody(random: Random) -> Person:
    """Return a person by chance."""
    return Person(random.choice(_FIRST), random.choice(_LAST), max(0, random.randrange(-40, 60)))


def line_for(label: str, person: Person, random: Random) -> str:
    """Return what somebody would write into one line of text under that label."""
    folded = f" {label.casefold()} "
    for words, examples in _BY_LABEL:
        if any(word in folded for word in words):
            return random.choice(examples)
    return person.name if "name" in folded or " who" in folded else random.choice(_OTHERWISE)
