"""Endpoints of the JSON API: a request model in, a reply model out, and the list from which OpenAPI is written."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import wraps
from http import HTTPStatus
from typing import Any

import orjson
from flask import Blueprint, Response, request
from pydantic import BaseModel

from codexa.core.errors import Problem
from codexa.web.contract.message import ErrorReply
from codexa.web.reading import read_json

SMALL = 64 * 1024  # bytes; what most requests are well below


@dataclass(frozen=True, kw_only=True, slots=True)
class Endpoint:
    """An address of the API: `rule` as Flask writes it."""

    method: str
    rule: str
    purpose: str
    request: type[BaseModel] | None
    reply: type[BaseModel] | None


ENDPOINTS: list[Endpoint] = []


def endpoint(
    blueprint: Blueprint,
    method: str,
    rule: str,
    *,
    body: type[BaseModel] | None = None,
    reply: type[BaseModel] | None = None,
    most: int = SMALL,
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a view that gets the request as model `body` (its first argument) and returns a model or a Response.

    A body of more than `most` bytes is refused before it is read.
    """

    def register(view: Callable[..., Any]) -> Callable[..., Any]:
        @wraps(view)
        def run(**places: Any) -> Response:
            result = view(read_json(body, most), **places) if body else view(**places)
            return result if isinstance(result, Response) else json_reply(result)

        blueprint.add_url_rule(rule, view.__name__, run, methods=[method])
        purpose = (view.__doc__ or "").strip().split("\n")[0]
        full = (blueprint.url_prefix or "") + rule
        ENDPOINTS.append(Endpoint(method=method, rule=full, purpose=purpose, request=body, reply=reply))
        return run

    return register


def json_reply(model: BaseModel | dict[str, Any] | None, status: int = 200) -> Response:
    """Return a model, or what has its shape already, as JSON, or an empty reply."""
    if model is None:
        return Response(status=204)
    content = model.model_dump_json().encode() if isinstance(model, BaseModel) else orjson.dumps(model)
    return Response(content, status, mimetype="application/json")


def error_reply(code: str, message: str, status: int, problems: list[Problem] | None = None) -> Response:
    """Return an error in the one shape that every error has; to programs as a problem (RFC 9457)."""
    if request.path.startswith("/api/v1/"):
        return _problem(code, message, status, problems or [])
    return json_reply(ErrorReply(code=code, message=message, problems=problems or []), status)


def _problem(code: str, message: str, status: int, problems: list[Problem]) -> Response:
    content = {
        "type": "about:blank",
        "title": HTTPStatus(status).phrase,
        "status": status,
        "detail": message,
        "code": code,
        "problems": [{"path": each.path, "message": each.message} for each in problems],
    }
    response = Response(orjson.dumps(content), status, mimetype="application/problem+json")
    if status == HTTPStatus.UNAUTHORIZED:
        response.headers["WWW-Authenticate"] = "Bearer"  # RFC 6750, 3
    return response
