"""Operations that programs ask for by a key: who may, and the OpenAPI 3.1 document that they are told by."""

import hashlib
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import wraps
from types import MappingProxyType
from typing import Any
from uuid import UUID

from flask import Blueprint, Response, g, request
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from codexa import __version__
from codexa.core.errors import Problem
from codexa.services import keys
from codexa.services.keys import KeyHolder, KeyRight
from codexa.web.database import connection
from codexa.web.endpoint import SMALL, json_reply
from codexa.web.network import network
from codexa.web.reading import read_json

PLACE = "/api/v1"
RATE = "600 per minute"
_IN_PLACE = re.compile(r"<(?:(\w+):)?(\w+)>")
_NO_QUERY: Mapping[str, str] = MappingProxyType({})


class ProblemReply(BaseModel):
    """What went wrong (RFC 9457): a code of ours, a sentence that says what to do, and where it is wrong."""

    type: str
    title: str
    status: int
    detail: str
    code: str
    problems: list[Problem]


@dataclass(frozen=True, kw_only=True, slots=True)
class Operation:
    """An operation: `query` says what each of its parameters does, `headers` which must be sent."""

    name: str
    method: str
    rule: str
    purpose: str
    about: str
    right: KeyRight
    request: type[BaseModel] | None
    reply: type[BaseModel] | None
    query: Mapping[str, str]
    headers: Mapping[str, str]


OPERATIONS: list[Operation] = []


def operation(
    blueprint: Blueprint,
    method: str,
    rule: str,
    right: KeyRight,
    *,
    body: type[BaseModel] | None = None,
    reply: type[BaseModel] | None = None,
    query: Mapping[str, str] = _NO_QUERY,
    headers: Mapping[str, str] = _NO_QUERY,
    most: int = SMALL,
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a view of a key's holder (in `g.holder`) that gets the body as a model and returns a model or Response.

    A key is looked at before anything else; a body of more than `most` bytes is refused before it is read.
    """

    def register(view: Callable[..., Any]) -> Callable[..., Any]:
        @wraps(view)
        def run(**places: Any) -> Response:
            g.holder = _holder(right, places.get("form"))
            result = view(read_json(body, most), **places) if body else view(**places)
            return result if isinstance(result, Response) else json_reply(result)

        blueprint.add_url_rule(rule, view.__name__, run, methods=[method])
        purpose, _, about = (view.__doc__ or "").strip().partition("\n")
        OPERATIONS.append(
            Operation(
                name=view.__name__,
                method=method,
                rule=PLACE + rule,
                purpose=purpose,
                about=" ".join(about.split()),
                right=right,
                request=body,
                reply=reply,
                query=query,
                headers=headers,
            )
        )
        return run

    return register


def holder() -> KeyHolder:
    """Return who asks: the holder of the key of this request."""
    found: KeyHolder = g.holder
    return found


def _holder(right: KeyRight, form: UUID | None) -> KeyHolder:
    return keys.holder(connection, token=_token(), right=right, form=form)


def _token() -> str:
    kind, _, token = request.headers.get("Authorization", "").partition(" ")
    return token.strip()[:200] if kind.lower() == "bearer" else ""


def what_is_counted() -> str:
    """Return what a request counts against: its key, or its network where it sends none."""
    token = _token()
    return hashlib.sha256(token.encode()).hexdigest()[:32] if token else network()


def openapi_of_operations(base: str) -> dict[str, Any]:
    """Return the OpenAPI 3.1 document; `base` is the address of this server."""
    models = [each for one in OPERATIONS for each in (one.request, one.reply) if each is not None] + [ProblemReply]
    _, schemas = models_json_schema(
        [(each, "serialization") for each in models], ref_template="#/components/schemas/{model}"
    )
    paths: dict[str, dict[str, Any]] = {}
    for each in OPERATIONS:
        path = _IN_PLACE.sub(r"{\2}", each.rule)
        paths.setdefault(path, {})[each.method.lower()] = _described(each)
    return {
        "openapi": "3.1.0",
        "info": {
            "title": "Codexa",
            "version": __version__,
            "description": "Forms and what comes back. Send a key of the team's as Authorization: Bearer <key>.",
        },
        "servers": [{"url": base}],
        "security": [{"key": []}],
        "paths": paths,
        "components": {
            "schemas": schemas["$defs"],
            "securitySchemes": {"key": {"type": "http", "scheme": "bearer"}},
        },
    }


def _described(each: Operation) -> dict[str, Any]:
    described: dict[str, Any] = {
        "operationId": each.name,
        "summary": each.purpose,
        "description": f"{each.about} Needs a key that may {each.right}.".strip(),
        "parameters": [
            *(_parameter(name, "path", _place(kind), "") for kind, name in _IN_PLACE.findall(each.rule)),
            *(_parameter(name, "query", {"type": "string"}, about) for name, about in each.query.items()),
            *(_parameter(name, "header", {"type": "string"}, about) for name, about in each.headers.items()),
        ],
        "responses": {
            "201" if each.request else "200": _content(each.reply, "application/json", "Done."),
            "default": _content(ProblemReply, "application/problem+json", "What went wrong."),
        },
    }
    if each.request is not None:
        described["requestBody"] = {"required": True, **_content(each.request, "application/json", "")}
    return described


def _parameter(name: str, place: str, schema: dict[str, str], about: str) -> dict[str, Any]:
    return {"name": name, "in": place, "required": place != "query", "schema": schema, "description": about}


def _place(kind: str) -> dict[str, str]:
    return {"type": "integer"} if kind == "number" else {"type": "string", "format": "uuid"}


def _content(model: type[BaseModel] | None, kind: str, description: str) -> dict[str, Any]:
    described: dict[str, Any] = {"description": description} if description else {}
    schema = {"$ref": f"#/components/schemas/{model.__name__}"} if model else {"type": "object"}
    return described | {"content": {kind: {"schema": schema}}}
