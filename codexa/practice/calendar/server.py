"""Serves the practice calendars: CalDAV (RFC 4791) below /caldav, by Radicale, and a week to look at.

gunicorn "codexa.practice.calendar.server:application()", one process.
"""

import datetime
import os
import time
from collections.abc import Iterable
from typing import Any

from flask import Blueprint, Flask, redirect, render_template, request, url_for
from radicale import config
from radicale.app import Application
from werkzeug.middleware.dispatcher import DispatcherMiddleware
from werkzeug.wrappers import Response as AnyResponse

from codexa.practice.calendar import store

_SLOW_SECONDS = float(os.environ.get("PRACTICE_CALENDAR_SLOW", "15"))
pages = Blueprint("pages", __name__)


@pages.get("/")
def week() -> str:
    """A week of all calendars, from Monday; `from` is a day of it."""
    try:
        day = datetime.date.fromisoformat(request.args.get("from", ""))
    except ValueError:
        day = datetime.datetime.now(datetime.UTC).date()
    monday = day - datetime.timedelta(days=day.weekday())
    days = [monday + datetime.timedelta(days=at) for at in range(7)]
    found = store.entries(monday, 7)
    return render_template(
        "week.html",
        days=[(each, [entry for entry in found if entry.starts.date() == each]) for each in days],
        before=monday - datetime.timedelta(days=7),
        after=monday + datetime.timedelta(days=7),
        calendars=store.CALENDARS,
        mode=store.mode(),
        modes=store.MODES,
    )


@pages.post("/mode")
def choose() -> AnyResponse:
    """Answer otherwise from now on."""
    chosen = request.form.get("mode", "")
    if chosen in store.MODES:
        store.set_mode(chosen)
    return redirect(url_for("pages.week"))


def _caldav() -> Application:
    known = config.load()
    known.update(
        {
            "auth": {
                "type": "htpasswd",
                "htpasswd_filename": str(store.FOLDER / "users"),
                "htpasswd_encryption": "plain",
                "delay": "0",
            },
            "storage": {"filesystem_folder": str(store.FOLDER)},
            "logging": {"level": "error"},
        },
        "the practice calendars",
    )
    return Application(known)


def _as_told(caldav: Any) -> Any:
    """Return the server that answers as it was told on its page."""

    def answer(environ: dict[str, Any], start: Any) -> Iterable[bytes]:
        match store.mode():
            case "refuse":
                start("403 Forbidden", [("Content-Type", "text/plain")])
                return [b"refused"]
            case "away":
                start("503 Service Unavailable", [("Content-Type", "text/plain")])
                return [b"away"]
            case "slow":
                time.sleep(_SLOW_SECONDS)
        replied: Iterable[bytes] = caldav(environ, start)
        return replied

    return answer


def application() -> DispatcherMiddleware:
    """Return the program."""
    store.prepare()
    app = Flask(__name__)
    app.register_blueprint(pages)
    return DispatcherMiddleware(app, {"/caldav": _as_told(_caldav())})
