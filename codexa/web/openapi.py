"""The API's OpenAPI 3.1 document and the JSON Schemas that TypeScript types are made from."""

import re
from typing import Any

from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from codexa import __version__
from codexa.core.definition.keys import RESERVED_KEYS
from codexa.core.definition.palettes import PALETTES
from codexa.core.definition.rich_text import limits
from codexa.core.definition.wording import MESSAGES, SHORT_WORDS, Wording
from codexa.core.fields import BLOCK_TYPES
from codexa.core.fields.field_type import FieldType
from codexa.core.form.form import Form
from codexa.core.formula.differences import DIFFERENCES
from codexa.core.formula.functions import FUNCTIONS
from codexa.core.languages import LANGUAGES
from codexa.web import app
from codexa.web.contract.message import ErrorReply, Message
from codexa.web.endpoint import ENDPOINTS, Endpoint

_PLACE = re.compile(r"<(?:(\w+):)?(\w+)>")


def form_schema() -> dict[str, Any]:
    """Return the JSON Schema (2020-12) of a form's document, as it is accepted."""
    schema = Form.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Codexa form", **schema}


def wire_schema() -> dict[str, Any]:
    """Return one JSON Schema with every shape that crosses between server and browser."""
    # Every blueprint is imported by the application, and every shape by its blueprint.
    models = sorted(Message.__subclasses__(), key=lambda each: each.__name__)
    wanted: list[type[BaseModel]] = [*models, Form]
    _, schema = models_json_schema([(each, "serialization") for each in wanted])
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Wire", **schema}


def block_types() -> list[dict[str, Any]]:
    """Return what the workbench says of each type of block, in the order in which they are offered."""
    return [
        {
            "type": each.name,
            "title": each.title,
            "family": str(each.family),
            "purpose": each.purpose,
            "linkable": isinstance(each, FieldType) and each.answered and each.linkable,
            "blank": each.blank().model_dump(mode="json"),
        }
        for each in BLOCK_TYPES
    ]


def functions() -> list[dict[str, str]]:
    """Return what the formula editor says of each function."""
    return [
        {"name": each.name, "signature": each.signature, "purpose": each.purpose, "differs": each.differs}
        for each in FUNCTIONS.values()
    ]


def differences() -> list[dict[str, Any]]:
    """Return what the formula editor says beside an operator, to an author who knows spreadsheets."""
    return [{"signs": list(each.signs), "here": each.here} for each in DIFFERENCES if each.signs]


def messages() -> list[dict[str, str]]:
    """Return what a form says to visitors by itself: each message, where it is met, and its usual words."""
    return [{"name": each.name, "group": each.group, "when": each.when, "usual": each.usual} for each in MESSAGES]


def short_words() -> dict[str, str]:
    """Return where the words are met that every form has beside its messages, for the workbench."""
    return SHORT_WORDS


def usual_words() -> dict[str, str]:
    """Return the usual words of each message that the browser itself says, for the public form."""
    return {each.name: each.usual for each in MESSAGES if each.usual and each.in_browser}


def words_by_language() -> dict[str, dict[str, str]]:
    """Return what forms say by themselves in each language, for the workbench: by message or setting."""
    found = {language: Wording().in_language(language) for language in LANGUAGES}
    return {
        language: {name: getattr(words, name) for name in SHORT_WORDS} | words.messages
        for language, words in found.items()
    }


def palettes() -> dict[str, dict[str, str]]:
    """Return the palettes that are ready-made, by name."""
    return PALETTES


def language_names() -> dict[str, str]:
    """Return the languages that forms speak, each by its own name."""
    return LANGUAGES


def rich_text() -> dict[str, list[str]]:
    """Return what rich text may hold, for the workbench that says what is taken out of it."""
    return limits()


def reserved_keys() -> list[str]:
    """Return the names that no block or figure can have, for the workbench that makes keys of labels."""
    return sorted(RESERVED_KEYS)


def openapi() -> dict[str, Any]:
    """Return the OpenAPI document of every endpoint."""
    assert app.WORKBENCH  # importing the application is what registers the endpoints
    schema = wire_schema()
    paths: dict[str, dict[str, Any]] = {}
    for endpoint in ENDPOINTS:
        path = _PLACE.sub(r"{\2}", endpoint.rule)
        paths.setdefault(path, {})[endpoint.method.lower()] = _operation(endpoint)
    definitions = _moved(schema["$defs"])
    return {
        "openapi": "3.1.0",
        "info": {"title": "Codexa", "version": __version__},
        "paths": paths,
        "components": {"schemas": definitions},
    }


def _operation(endpoint: Endpoint) -> dict[str, Any]:
    operation: dict[str, Any] = {
        "summary": endpoint.purpose,
        "parameters": [
            {"name": name, "in": "path", "required": True, "schema": _place_schema(kind)}
            for kind, name in _PLACE.findall(endpoint.rule)
        ],
        "responses": {
            "200" if endpoint.reply else "204": _content(endpoint.reply, "Done."),
            "default": _content(ErrorReply, "What went wrong."),
        },
    }
    if endpoint.request:
        operation["requestBody"] = {"required": True, **_content(endpoint.request, "")}
    return operation


def _place_schema(kind: str) -> dict[str, str]:
    return {"type": "integer"} if kind == "number" else {"type": "string", "format": "uuid"}


def _content(model: type[BaseModel] | None, description: str) -> dict[str, Any]:
    content: dict[str, Any] = {"description": description} if description else {}
    if model:
        schema = {"$ref": f"#/components/schemas/{model.__name__}"}
        content["content"] = {"application/json": {"schema": schema}}
    return content


def _moved(part: Any) -> Any:
    if isinstance(part, dict):
        return {
            name: value.replace("#/$defs/", "#/components/schemas/") if name == "$ref" else _moved(value)
            for name, value in part.items()
        }
    return [_moved(each) for each in part] if isinstance(part, list) else part
