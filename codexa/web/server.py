"""What gunicorn runs: gunicorn "codexa.web.server:application()"."""

from flask import Flask

from codexa.settings import read_settings
from codexa.web.app import create_app


def application() -> Flask:
    """Return the application with the settings of the environment. Raises SettingsError."""
    return create_app(read_settings())
