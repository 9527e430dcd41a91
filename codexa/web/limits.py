"""How often one network address may ask.

Counted in each web process: a guard against floods, not an exact number. What must be exact across processes, wrong
passwords, is counted in the database.
"""

from flask import current_app
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address

limiter = Limiter(get_remote_address, storage_uri="memory://")


def public_rate() -> str:
    """Return the rate for public addresses."""
    rate: str = current_app.config["SETTINGS"].public_rate
    return rate
