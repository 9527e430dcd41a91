"""The application with a no-op JSON route and one that inserts a row: gunicorn "bench.server:application()"."""

from flask import Flask, Response, jsonify, request
from psycopg.types.json import Jsonb

from codexa.settings import read_settings
from codexa.web.app import create_app
from codexa.web.database import connection

_INSERT = "INSERT INTO bench_row (key, content) VALUES (%s, %s)"


def application() -> Flask:
    """Return the application with the routes of the benchmark."""
    app = create_app(read_settings())

    @app.post("/bench/no-op")
    def no_op() -> Response:
        return jsonify({"answers": len(request.get_json()["answers"])})

    @app.post("/bench/insert")
    def insert() -> Response:
        content = Jsonb({"text": "x" * int(request.args["size"])})
        with connection() as database:
            database.execute(_INSERT, (request.headers["Idempotency-Key"], content))
        return jsonify({"number": 1})

    return app
