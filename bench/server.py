"""The application with a no-op JSON route beside it: gunicorn "bench.server:application()"."""

from flask import Flask, Response, current_app, jsonify, request

from codexa.settings import read_settings
from codexa.web.app import create_app

ANSWERS = {"b1kind": "o2deep", "b2adults": "10", "b3child": "4", "b5name": "Harbour School", "b6bring": "o2bus"}


def application() -> Flask:
    """Return the application with the routes of the benchmark."""
    app = create_app(read_settings())

    @app.post("/bench/no-op")
    def no_op() -> Response:
        return jsonify({"answers": len(request.get_json()["answers"])})

    @app.get("/bench/form")
    def form() -> Response:
        with current_app.extensions["codexa_pool"].connection() as connection:
            found = connection.execute("SELECT id FROM form LIMIT 1").fetchone()
        return jsonify({"form": str(found["id"])})

    return app
