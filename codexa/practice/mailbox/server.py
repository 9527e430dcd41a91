"""The mailbox as a person reads it: a list, and one mail with its HTML, its text and its headers."""

import datetime

from flask import Flask, Response, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from codexa.practice.mailbox import store

_POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src data: cid:"


def _moment(at: float) -> str:
    return datetime.datetime.fromtimestamp(at).astimezone().strftime("%d %b, %H:%M:%S")


def application() -> Flask:
    """Return the program."""
    app = Flask(__name__)
    app.jinja_env.filters["moment"] = _moment

    @app.get("/")
    def inbox() -> str:
        wanted = request.args.get("find", "").casefold()
        found = [
            each
            for each in store.all_mail()
            if wanted in f"{each.message['Subject']} {each.recipients} {each.text}".casefold()
        ]
        return render_template("inbox.html", mail=found, find=wanted, mode=store.mode(), modes=store.MODES)

    @app.get("/mail/<mail>")
    def read(mail: str) -> str:
        found = store.find(mail)
        if found is None:
            abort(404)
        return render_template("mail.html", mail=found)

    @app.get("/mail/<mail>/html")
    def body(mail: str) -> Response:
        found = store.find(mail)
        if found is None:
            abort(404)
        response = Response(found.html, mimetype="text/html")
        response.headers["Content-Security-Policy"] = _POLICY
        return response

    @app.post("/mode")
    def choose() -> AnyResponse:
        chosen = request.form.get("mode", "")
        if chosen in store.MODES:
            store.set_mode(chosen)
        return redirect(url_for("inbox"))

    @app.post("/empty")
    def empty() -> AnyResponse:
        store.empty()
        return redirect(url_for("inbox"))

    return app
