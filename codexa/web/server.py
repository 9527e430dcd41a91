"""What gunicorn runs: gunicorn "codexa.web.server:application()"."""

import gc

from flask import Flask

from codexa.settings import read_settings
from codexa.web.app import create_app


def application() -> Flask:
    """Return the application with the settings of the environment. Raises SettingsError."""
    app = create_app(read_settings())
    # What is there by now stays: looking through it for garbage takes a third of the time of a long export.
    gc.collect()
    gc.freeze()
    return app
