"""Builds the web application from its settings; nothing opens before."""

import atexit

from flask import Flask
from werkzeug.middleware.proxy_fix import ProxyFix

from codexa.services.answering import Programs
from codexa.settings import Settings
from codexa.store.database import open_pool
from codexa.web import (
    brands,
    conditions,
    drafts,
    editions,
    errors,
    forms,
    guard,
    history,
    logging,
    pages,
    previews,
    public,
    responses,
    sessions,
)
from codexa.web.limits import limiter

MAX_REQUEST = 2 * 1024 * 1024  # bytes; the largest draft is well below
BLUEPRINTS = (
    sessions.blueprint,
    forms.blueprint,
    drafts.blueprint,
    editions.blueprint,
    history.blueprint,
    conditions.blueprint,
    brands.blueprint,
    responses.blueprint,
    previews.blueprint,
    public.blueprint,
    pages.blueprint,
)


def create_app(settings: Settings) -> Flask:
    """Return the application, connected to its database."""
    logging.configure()
    app = Flask("codexa.web", static_folder="static", template_folder="templates")
    app.config.update(
        SETTINGS=settings,
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=MAX_REQUEST,
        SEND_FILE_MAX_AGE_DEFAULT=31_536_000,  # seconds; built files carry a digest of their content in their name
        RATELIMIT_HEADERS_ENABLED=False,
    )
    pool = open_pool(settings.database, int(settings.pool_size))
    atexit.register(pool.close)
    app.extensions["codexa_pool"] = pool
    app.extensions["codexa_programs"] = Programs(pool)
    logging.install(app)
    guard.install(app)
    errors.install(app)
    limiter.init_app(app)
    for blueprint in BLUEPRINTS:
        app.register_blueprint(blueprint)
    if int(settings.proxies):
        app.wsgi_app = ProxyFix(  # type: ignore[method-assign]
            app.wsgi_app, x_for=int(settings.proxies), x_proto=int(settings.proxies)
        )
    return app
