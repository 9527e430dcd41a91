"""The application with a no-op JSON route and one that inserts a row: gunicorn "bench.server:application()"."""

from typing import Any

from flask import Flask, Response, jsonify, request
from psycopg.types.json import Jsonb

from codexa.store.database import exactly_one
from codexa.web import server
from codexa.web.database import connection

_INSERT = "INSERT INTO bench_row (key, content) VALUES (%s, %s)"
# All that a submit keeps: the response, its events, what follows from it, and the jobs.
_KEPT = """
SELECT jsonb_build_object(
    'response', to_jsonb(response),
    'events', (SELECT jsonb_agg(event) FROM event WHERE (form_id, number) = (response.form_id, response.number)),
    'runs', (SELECT jsonb_agg(run) FROM run WHERE (form_id, number) = (response.form_id, response.number)),
    'jobs', (SELECT jsonb_agg(job) FROM (SELECT * FROM procrastinate_jobs ORDER BY id DESC LIMIT 1) AS job)
) AS kept
FROM response LIMIT 1
"""


def application() -> Flask:
    """Return the application with the routes of the benchmark."""
    app = server.application()
    kept: list[dict[str, Any]] = []

    @app.post("/bench/no-op")
    def no_op() -> Response:
        return jsonify({"answers": len(request.get_json()["answers"])})

    @app.post("/bench/insert")
    def insert() -> Response:
        if not kept:
            with connection() as database:
                kept.append(exactly_one(database, _KEPT.encode())["kept"])
        with connection() as database:
            database.execute(_INSERT, (request.headers["Idempotency-Key"], Jsonb(kept[0])))
        return jsonify({"number": 1})

    return app
