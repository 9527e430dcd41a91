"""Endpoints of the JSON API: a request model in, a reply model out, and the list from which OpenAPI is written."""

import json
from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal
from functools import wraps
from typing import Any, NoReturn

import orjson
from flask import Blueprint, Response, request
from pydantic import BaseModel, ValidationError

from codexa.core.errors import Problem
from codexa.web.contract.message import ErrorReply


@dataclass(frozen=True, kw_only=True, slots=True)
class Endpoint:
    """An address of the API: `rule` as Flask writes it."""

    method: str
    rule: str
    purpose: str
    request: type[BaseModel] | None
    reply: type[BaseModel] | None


class BadRequestError(Exception):
    """The request can't be read; `problems` tell where."""

    def __init__(self, message: str, problems: list[Problem] | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.problems = problems or []


ENDPOINTS: list[Endpoint] = []


def endpoint(
    blueprint: Blueprint,
    method: str,
    rule: str,
    *,
    body: type[BaseModel] | None = None,
    reply: type[BaseModel] | None = None,
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a view that gets the request as model `body` (its first argument) and returns a model or a Response."""

    def register(view: Callable[..., Any]) -> Callable[..., Any]:
        @wraps(view)
        def run(**places: Any) -> Response:
            result = view(_read(body), **places) if body else view(**places)
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
    content = model.model_dump(mode="json") if isinstance(model, BaseModel) else model
    return Response(orjson.dumps(content), status, mimetype="application/json")


def error_reply(code: str, message: str, status: int, problems: list[Problem] | None = None) -> Response:
    """Return an error in the one shape that every error has."""
    return json_reply(ErrorReply(code=code, message=message, problems=problems or []), status)


def _read(model: type[BaseModel]) -> BaseModel:
    if not request.is_json:
        raise BadRequestError("Send JSON, with the header Content-Type: application/json.")
    try:
        # No binary floats: a number with a point is a decimal from here on.
        document = json.loads(request.get_data(), parse_float=Decimal, parse_constant=_no_constant)
    except (ValueError, RecursionError):
        raise BadRequestError("The request is no JSON that can be read.") from None
    try:
        return model.model_validate(document)
    except ValidationError as error:
        problems = [
            Problem(path=".".join(map(str, each["loc"])), message=each["msg"])
            for each in error.errors(include_url=False)
        ]
        raise BadRequestError("The request has another shape than this address takes.", problems) from None


def _no_constant(name: str) -> NoReturn:
    raise ValueError(f"{name} is no JSON number")
