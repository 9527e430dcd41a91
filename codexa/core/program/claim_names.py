"""The names under which what runs out is counted."""

from datetime import date

from codexa.core.definition.order import Discount

PERSON_OF_SLOTS = "slots-of:"  # with which such names begin
CLOSED = 2_147_483_647  # so many are taken of what is not given to anybody any more
_BEGINNING = len("2026-12-03T18:30")


def stock_name(block: str, option: str) -> str:
    """Return the name under which the stock of a product, or of one of its options by code, is claimed."""
    return f"stock:{block}:{option}" if option else f"stock:{block}"


def code_name(discount: Discount) -> str:
    """Return the name under which the uses of a discount's code are claimed."""
    return f"code:{discount.id}"


def record_name(table: str, number: int, column: str) -> str:
    """Return the name under which places of a record are claimed, of so many as a column says."""
    return f"record:{table}:{number}:{column}"


def slot_name(block: str, code: str, at: str) -> str:
    """Return the name under which places of a slot are claimed, by its beginning and what it is offered at.

    Those of one block are in the order of time.
    """
    return f"slot:{block}:{code}:{at}"


def slot_in(name: str) -> tuple[str, str]:
    """Return when the slot of a name begins, by the clock, and what it is offered at."""
    rest = name.split(":", 2)[2]
    return rest[:_BEGINNING], rest[_BEGINNING + 1 :]


def slots_from(block: str, day: date) -> str:
    """Return with what the names of a block's slots of a day, and of later ones, compare as not before it."""
    return f"slot:{block}:{day}"


def person_of_slots(block: str, person: str) -> str:
    """Return the name under which what one person has of a block's slots is counted."""
    return f"{PERSON_OF_SLOTS}{block}:{person}"
