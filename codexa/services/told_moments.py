"""Days and times as a form's visitors read them: in its language, by the clocks where it is at home."""

from datetime import datetime
from zoneinfo import ZoneInfo

from babel.dates import format_date, format_time

from codexa.core.form.form import Form


def day_words(form: Form, moment: datetime) -> str:
    """Return the day of an aware moment."""
    return format_date(moment.astimezone(ZoneInfo(form.time_zone)), "long", form.locale)


def moment_words(form: Form, moment: datetime) -> str:
    """Return the day and the time of an aware moment."""
    local = moment.astimezone(ZoneInfo(form.time_zone))
    return f"{day_words(form, moment)}, {format_time(local, 'short', locale=form.locale)}"
