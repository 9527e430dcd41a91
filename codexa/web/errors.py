"""Every error as one shape with a clear sentence; a person never sees a stack trace."""

from http import HTTPStatus

import structlog
from flask import Flask, Response, g, render_template, request
from psycopg import DataError
from psycopg.errors import LockNotAvailable, QueryCanceled
from werkzeug.exceptions import HTTPException

from codexa.core.errors import DefinitionError, Problem, where_it_failed
from codexa.core.program.explain import NoSuchFactError
from codexa.core.responses.conditions import ConditionError
from codexa.services.errors import ServiceError, TooBusyError
from codexa.store.database import AwayError, BusyError
from codexa.web.endpoint import error_reply
from codexa.web.reading import BadRequestError

_STATUSES = {
    "not_found": 404,
    "not_allowed": 403,
    "no_team": 403,
    "last_owner": 409,
    "invitation_used": 410,
    "wrong_person": 409,
    "foreign_request": 403,
    "not_signed_in": 401,
    "wrong_sign_in": 401,
    "too_many_attempts": 429,
    "clash": 409,
    "key_reused": 409,
    "not_proven": 422,
    "trials_fail": 409,
    "name_taken": 409,
    "closed": 410,
    "table_refused": 422,
    "password_needed": 403,
    "link_refused": 410,
    "published_meanwhile": 409,
    "file_refused": 422,
    "kept_elsewhere": 409,
    "keeping_refused": 409,
    "busy": 503,
    "password_refused": 422,
    "wrong_password": 422,
    "address_refused": 422,
    "link_used": 410,
    "move_refused": 409,
    "factor_refused": 422,
    "step_over": 410,
    "sign_in_needed": 403,
    "not_admitted": 403,
    "account_refused": 422,
    "calendar_refused": 422,
    "refund_refused": 422,
    "plan_refused": 422,
    "plans_run": 409,
    "account_gone": 503,
    "place_unknown": 400,
    "view_refused": 422,
    "behind": 503,
    "too_many": 422,
    "moved_meanwhile": 409,
    "correction_refused": 409,
    "record_refused": 409,
    "named_elsewhere": 409,
    "key_refused": 401,
    "corrected_meanwhile": 409,
    "booking_refused": 409,
    "decided_meanwhile": 409,
    "part_moved": 409,
}
_SENTENCES = {
    404: "There is nothing at this address.",
    405: "This address does not take such requests.",
    413: "This is more than can be taken at once. Send less.",
    415: "Send JSON, with the header Content-Type: application/json.",
    429: "Too many requests came from your address. Wait a minute, then try again.",
}
_log = structlog.get_logger()


def install(app: Flask) -> None:
    """Answer each kind of error."""
    app.register_error_handler(ServiceError, _refused)
    app.register_error_handler(DefinitionError, _not_a_definition)
    app.register_error_handler(NoSuchFactError, _no_such_fact)
    app.register_error_handler(ConditionError, _condition)
    app.register_error_handler(BadRequestError, _not_readable)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(AwayError, _database_away)
    app.register_error_handler(BusyError, _busy)
    app.register_error_handler(QueryCanceled, _busy)
    app.register_error_handler(LockNotAvailable, _busy)
    app.register_error_handler(DataError, _not_data)
    app.register_error_handler(Exception, _unexpected)


def _reply(code: str, message: str, status: int) -> Response:
    if request.path.startswith(("/api/", "/feed/")) or request.path.endswith(".csv"):
        return error_reply(code, message, status)
    return Response(render_template("message.html", message=message, status=status), status)


def _refused(error: ServiceError) -> Response:
    return _reply(error.code, error.message, _STATUSES[error.code])


def _not_a_definition(error: DefinitionError) -> Response:
    first = error.problems[0]
    more = f" And {len(error.problems) - 1} more." if len(error.problems) > 1 else ""
    return error_reply("not_a_definition", f"{first.path}: {first.message}.{more}", 422, error.problems)


def _no_such_fact(error: NoSuchFactError) -> Response:
    return _reply("not_found", str(error), 404)


def _condition(error: ConditionError) -> Response:
    problems = [Problem(path=f"conditions.{error.at}", message=error.message)]
    return error_reply("condition_refused", error.message, 422, problems)


def _not_readable(error: BadRequestError) -> Response:
    return error_reply("not_readable", error.message, 400, error.problems)


def _http(error: HTTPException) -> Response:
    status = error.code or 500
    response = _reply(f"http_{status}", _SENTENCES.get(status, "This request can't be answered."), status)
    if status == HTTPStatus.TOO_MANY_REQUESTS:
        response.headers["Retry-After"] = "60"
    return response


def _database_away(error: Exception) -> Response:
    _log.error("database_away", cause=type(error).__name__)
    return _later("away", "Codexa can't reach its data just now. Nothing you typed is lost; try again.")


def _busy(error: Exception) -> Response:
    _log.error("busy", cause=type(error).__name__)
    return _later("busy", TooBusyError().message)


def _later(code: str, message: str) -> Response:
    response = _reply(code, message, 503)
    response.headers["Retry-After"] = "2"
    return response


def _not_data(error: DataError) -> Response:
    # What no check before has refused, and the database does: such as a number that no column holds.
    _log.error("not_data", cause=type(error).__name__, sqlstate=error.sqlstate)
    return _reply("not_readable", "The request has a value that can't be looked for. Correct it.", 400)


def _unexpected(error: Exception) -> Response:
    _log.error("unexpected", cause=where_it_failed(error))
    message = f"Something went wrong on our side. Nothing was changed; tell us the number {g.get('request_id', '–')}."
    return _reply("unexpected", message, 500)
