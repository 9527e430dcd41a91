"""Serves the practice bank: gunicorn "codexa.practice.bank.server:application()", one process."""

import datetime

from flask import Flask

from codexa.practice.bank import store, telling
from codexa.practice.bank.api import api
from codexa.practice.bank.pages import money, pages


def application() -> Flask:
    """Return the bank; from now on it tells shops what happened."""
    app = build()
    telling.start()
    return app


def build() -> Flask:
    """Return the bank, which tells nobody by itself."""
    store.prepare()
    app = Flask(__name__)
    app.config["MAX_CONTENT_LENGTH"] = 64 * 1024
    app.jinja_env.filters["money"] = lambda payment: money(payment["amount"], payment["currency"])
    app.jinja_env.filters["moment"] = lambda at: (
        "" if at is None else datetime.datetime.fromtimestamp(at).astimezone().strftime("%d %b, %H:%M:%S")
    )
    app.register_blueprint(api)
    app.register_blueprint(pages)
    return app
