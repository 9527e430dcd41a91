"""The mailbox as a person reads it: a list, and one mail with its HTML, its text and its headers."""

import datetime
import io
import re
from urllib.parse import quote

from flask import Blueprint, Flask, Response, abort, redirect, render_template, request, send_file, url_for
from werkzeug.wrappers import Response as AnyResponse

from codexa.practice.mailbox import store

_POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src 'self'"

pages = Blueprint("pages", __name__)


def _moment(at: float) -> str:
    return datetime.datetime.fromtimestamp(at).astimezone().strftime("%d %b, %H:%M:%S")


def _found(mail: str) -> store.Mail:
    found = store.find(mail)
    if found is None:
        abort(404)
    return found


@pages.get("/")
def inbox() -> str:
    """The list of what came, newest first."""
    wanted = request.args.get("find", "").casefold()
    found = [
        each
        for each in store.all_mail()
        if wanted in f"{each.message['Subject']} {each.recipients} {each.text}".casefold()
    ]
    return render_template("inbox.html", mail=found, find=wanted, mode=store.mode(), modes=store.MODES)


@pages.get("/mail/<mail>")
def read(mail: str) -> str:
    """One mail."""
    return render_template("mail.html", mail=_found(mail))


@pages.get("/mail/<mail>/html")
def body(mail: str) -> Response:
    """The mail's HTML, for a frame."""
    found = _found(mail)
    # Its links open beside it, and its pictures are those that came with it.
    shown = found.html.replace("<head>", '<head><base target="_blank">', 1)
    shown = re.sub(r'src="cid:([^"]+)"', lambda cid: f'src="/mail/{mail}/picture/{quote(cid[1])}"', shown)
    response = Response(shown, mimetype="text/html")
    response.headers["Content-Security-Policy"] = _POLICY
    return response


@pages.get("/mail/<mail>/picture/<content_id>")
def picture(mail: str, content_id: str) -> Response:
    """A picture that the HTML shows."""
    part = _found(mail).named(content_id)
    if part is None or part.get_content_maintype() != "image":
        abort(404)
    return Response(part.get_content(), mimetype=part.get_content_type())


@pages.get("/mail/<mail>/file/<int:at>")
def file(mail: str, at: int) -> Response:
    """A file that came along."""
    parts = _found(mail).attachments
    if at >= len(parts):
        abort(404)
    content = parts[at].get_payload(decode=True)
    name = parts[at].get_filename() or f"attachment-{at + 1}"
    return send_file(
        io.BytesIO(content if isinstance(content, bytes) else b""),
        parts[at].get_content_type(),
        as_attachment=parts[at].get_content_type() != "application/pdf",
        download_name=name,
    )


@pages.post("/mode")
def choose() -> AnyResponse:
    """Take mail otherwise from now on."""
    chosen = request.form.get("mode", "")
    if chosen in store.MODES:
        store.set_mode(chosen)
    return redirect(url_for("pages.inbox"))


@pages.post("/empty")
def empty() -> AnyResponse:
    """Throw all mail away."""
    store.empty()
    return redirect(url_for("pages.inbox"))


def application() -> Flask:
    """Return the program."""
    app = Flask(__name__)
    app.jinja_env.filters["moment"] = _moment
    app.register_blueprint(pages)
    return app
