"""Structured logs: one JSON line per request, with its number and no answers."""

import logging
import secrets
import time

import structlog
from flask import Flask, Response, g, request


def configure() -> None:
    """Write JSON lines to standard output."""
    structlog.configure(
        processors=[
            structlog.contextvars.merge_contextvars,
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper(fmt="iso", utc=True),
            structlog.processors.JSONRenderer(),
        ],
        wrapper_class=structlog.make_filtering_bound_logger(logging.INFO),
        cache_logger_on_first_use=True,
    )


def install(app: Flask) -> None:
    """Number each request and log it when it is answered."""
    log = structlog.get_logger()

    @app.before_request
    def begin() -> None:
        g.request_id = secrets.token_hex(8)
        g.began = time.monotonic()

    @app.after_request
    def end(response: Response) -> Response:
        response.headers["X-Request-Id"] = g.request_id
        if not request.path.startswith(("/static/", "/health", "/ready")):
            milliseconds = round((time.monotonic() - g.began) * 1000, 1)
            log.info(
                "request",
                request_id=g.request_id,
                method=request.method,
                path=_path(),
                status=response.status_code,
                milliseconds=milliseconds,
            )
        return response


# What of an address is a secret of whoever has it.
_SECRET = ("token", "mark")


def _path() -> str:
    path = request.path
    for name in _SECRET:
        secret = (request.view_args or {}).get(name)
        path = path.replace(secret, "…") if secret else path
    return path
