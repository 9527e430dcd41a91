"""A series of slots in one sentence for the team: "Mon to Thu, 17:00 to 21:00, every 45 minutes, 2 places"."""

from collections.abc import Iterator, Mapping
from datetime import date

from codexa.core.fields.slot_times import SlotSeries

_WEEKDAYS = ("Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat")
_FROM_MONDAY = (1, 2, 3, 4, 5, 6, 0)


def series_told(series: SlotSeries, places: Mapping[str, str]) -> str:
    """Return a series in words; `places` are the labels of what it may be offered at, by code."""
    return ", ".join(_parts(series, places))


def _parts(series: SlotSeries, places: Mapping[str, str]) -> Iterator[str]:
    yield _weekdays_told(set(series.weekdays))
    yield f"{series.begins} to {series.ends}"
    every = series.every or series.minutes
    yield (
        f"every {_minutes(every)}" if every == series.minutes else f"{_minutes(series.minutes)} every {_minutes(every)}"
    )
    for each in series.breaks:
        yield f"not {each.begins} to {each.ends}"
    yield f"{series.places} place" if series.places == 1 else f"{series.places} places"
    if series.at:
        yield "at " + " and ".join(places.get(each, each) for each in series.at)
    yield _day(series.first) if series.first == series.last else f"{_day(series.first)} to {_day(series.last)}"


def _weekdays_told(days: set[int]) -> str:
    if not days:
        return "on no day"
    if len(days) == 7:
        return "every day"
    runs: list[list[int]] = []
    for day in _FROM_MONDAY:
        if day not in days:
            continue
        at = _FROM_MONDAY.index(day)
        if runs and _FROM_MONDAY.index(runs[-1][-1]) == at - 1:
            runs[-1].append(day)
        else:
            runs.append([day])
    return ", ".join(_run(run) for run in runs)


def _run(days: list[int]) -> str:
    first, last = _WEEKDAYS[days[0]], _WEEKDAYS[days[-1]]
    if len(days) == 1:
        return first
    return f"{first} and {last}" if len(days) == 2 else f"{first} to {last}"


def _minutes(count: int) -> str:
    hours, rest = divmod(count, 60)
    if rest or not hours:
        return f"{count} minutes"
    return "hour" if hours == 1 else f"{hours} hours"


def _day(day: date) -> str:
    return f"{day.day} {day:%b %Y}"
