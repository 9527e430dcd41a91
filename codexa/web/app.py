"""Builds the web application from its settings; nothing opens before."""

import atexit

from flask import Blueprint, Flask
from werkzeug.middleware.proxy_fix import ProxyFix

from codexa.settings import Settings
from codexa.web import (
    about_person,
    accounts,
    audit,
    bookings,
    brands,
    calendars,
    conditions,
    content,
    continuing,
    correcting,
    decisions,
    drafts,
    editions,
    errors,
    feeds,
    follow_ups,
    forms,
    funnel,
    groups,
    guard,
    history,
    importing,
    keys,
    limits,
    links,
    lists,
    logging,
    members,
    own_page,
    pages,
    part_page,
    payments,
    previews,
    programs,
    public,
    publish,
    rehearsal,
    response_set,
    responses,
    roll,
    second_factors,
    sessions,
    slots,
    static_files,
    table_imports,
    tables,
    team,
    translations,
    workings,
)
from codexa.web.database import Kept
from codexa.web.endpoint import SMALL
from codexa.web.reading import NumberConverter
from codexa.web.slow_bodies import SlowBodies

WORKBENCH: tuple[Blueprint, ...] = (
    sessions.blueprint,
    accounts.blueprint,
    second_factors.blueprint,
    team.blueprint,
    groups.blueprint,
    roll.blueprint,
    audit.blueprint,
    workings.blueprint,
    forms.blueprint,
    drafts.blueprint,
    translations.blueprint,
    editions.blueprint,
    publish.blueprint,
    links.blueprint,
    lists.blueprint,
    follow_ups.blueprint,
    history.blueprint,
    conditions.blueprint,
    brands.blueprint,
    responses.blueprint,
    correcting.blueprint,
    response_set.blueprint,
    importing.blueprint,
    table_imports.blueprint,
    tables.blueprint,
    funnel.blueprint,
    feeds.blueprint,
    keys.blueprint,
    about_person.blueprint,
    payments.blueprint,
    previews.blueprint,
    slots.blueprint,
    rehearsal.blueprint,
    bookings.blueprint,
    calendars.blueprint,
    decisions.blueprint,
    pages.blueprint,
)
PUBLIC: tuple[Blueprint, ...] = (
    public.blueprint,
    continuing.blueprint,
    payments.told,
    brands.pictures,
    feeds.given,
    bookings.given,
    content.blueprint,
    members.blueprint,
    own_page.blueprint,
    own_page.answering,
    part_page.blueprint,
    part_page.answering,
)
for _each in WORKBENCH:
    limits.bound_workbench(_each)
for _each in PUBLIC:
    limits.bound_public(_each)
# What a process answers; the two sides may run apart, so that work on large drafts never makes visitors wait.
SIDES = {
    "all": (*WORKBENCH, programs.blueprint, *PUBLIC),
    "workbench": (*WORKBENCH, programs.blueprint),
    "public": PUBLIC,
}


def create_app(settings: Settings) -> Flask:
    """Return the application; it connects to its database with the first request."""
    logging.configure()
    app = Flask("codexa.web", static_folder="static", template_folder="templates")
    app.config.update(
        SETTINGS=settings,
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=SMALL,
        MAX_FORM_PARTS=0,
    )
    app.url_map.converters["number"] = NumberConverter
    kept = Kept.of(settings)
    atexit.register(kept.close)
    app.extensions["codexa"] = kept
    logging.install(app)
    guard.install(app)
    errors.install(app)
    limits.install(app, kept.database)
    app.register_blueprint(pages.health)
    for blueprint in SIDES[settings.side]:
        app.register_blueprint(blueprint)
    app.wsgi_app = SlowBodies(app.wsgi_app)  # type: ignore[method-assign]
    if int(settings.proxies):
        app.wsgi_app = ProxyFix(  # type: ignore[method-assign]
            app.wsgi_app, x_for=int(settings.proxies), x_proto=int(settings.proxies)
        )
    static_files.install(app)
    return app
