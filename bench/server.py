"""The application with a no-op JSON route beside it: gunicorn "bench.server:application()"."""

from flask import Flask, Response, jsonify, request

from codexa.settings import read_settings
from codexa.web.app import create_app


def application() -> Flask:
    """Return the application with the routes of the benchmark."""
    app = create_app(read_settings())

    @app.post("/bench/no-op")
    def no_op() -> Response:
        return jsonify({"answers": len(request.get_json()["answers"])})

    return app
