"""Plans at the bank: a card is kept when the first payment is made, and charged again on each day that comes."""

import calendar
import datetime

UNITS = ("day", "week", "month", "year")
_MOST_AT_ONCE = 5_000  # charges, when the clock is moved on far


def day_of(start: datetime.date, every: int, unit: str, steps: int) -> datetime.date:
    """Return the day so many steps after a start; a month that is too short has it on its last day."""
    if unit in ("day", "week"):
        return start + datetime.timedelta(days=every * steps * (7 if unit == "week" else 1))
    months = start.month - 1 + every * steps * (12 if unit == "year" else 1)
    year, month = start.year + months // 12, months % 12 + 1
    return datetime.date(year, month, min(start.day, calendar.monthrange(year, month)[1]))
