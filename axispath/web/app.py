"""The Flask application."""

from __future__ import annotations

import logging
import os
from datetime import timedelta
from typing import Any

from flask import Flask
from flask_compress import Compress
from werkzeug.middleware.proxy_fix import ProxyFix

from axispath.budgets import REQUEST
from axispath.core.arithmetic.patience import limited
from axispath.store.database import Store
from axispath.web import (
    account,
    api,
    assets,
    bringing,
    crowd,
    equations,
    errands,
    handbook,
    handouts,
    hearing,
    hosts,
    limits,
    measured,
    operating,
    pages,
    past,
    practising,
    reducing,
    sealed,
    sealing,
    security,
    shelf_api,
    solving,
    taking,
    troubles,
    working,
)
from axispath.web.bodies import MAX_REQUEST, SheetRequest
from axispath.work.client import from_environment


def create_inside() -> Flask:
    """The application as workers have it: what renders and answers, without people or database."""
    app = Flask(__name__)
    troubles.answer(app)
    assets.serve_versioned(app)
    return app


def create_app(database: str | None = None, secret_key: str | None = None) -> Flask:
    """An application on a database. Without arguments the environment decides."""
    app = Flask(__name__)
    secret = secret_key or os.environ["AXISPATH_SECRET_KEY"]
    if len(secret) < security.SHORTEST_SECRET:
        least = security.SHORTEST_SECRET
        raise ValueError(f"AXISPATH_SECRET_KEY needs {least} characters, made at random.")
    app.request_class = SheetRequest
    app.url_map.merge_slashes = False  # a redirect would repeat whatever host was asked for
    app.config.update(
        SECRET_KEY=secret,
        MAX_CONTENT_LENGTH=MAX_REQUEST,
        SESSION_COOKIE_NAME="axispath",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_SECURE=os.environ.get("AXISPATH_HTTPS") == "1",
        PERMANENT_SESSION_LIFETIME=timedelta(days=730),
        SESSION_REFRESH_EACH_REQUEST=False,  # pages do it, so that nothing shared carries a cookie
        WTF_CSRF_TIME_LIMIT=None,
        COMPRESS_MIMETYPES=[
            "text/html",
            "text/css",
            "text/javascript",
            "application/javascript",
            "application/json",
            "image/svg+xml",
        ],
    )
    app.extensions["store"] = Store(database or os.environ["DATABASE_URL"])
    app.extensions["broker"] = from_environment()
    Compress(app)
    operating.count(app)
    security.protect(app)
    sealing.guard(app)
    troubles.answer(app)
    assets.serve_versioned(app)
    app.wsgi_app = crowd.only_some(app.wsgi_app)  # type: ignore[assignment, method-assign]
    if os.environ.get("AXISPATH_BEHIND_PROXY") == "1":
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=1, x_proto=1)  # type: ignore[method-assign]
    wsgi = app.wsgi_app

    def timed(*request: Any) -> Any:
        with limited(REQUEST):
            return wsgi(*request)

    app.wsgi_app = hosts.only(timed, hosts.configured())  # type: ignore[assignment, method-assign]
    app.register_blueprint(pages.blueprint)
    app.register_blueprint(past.blueprint)
    app.register_blueprint(practising.blueprint)
    app.register_blueprint(sealed.blueprint)
    app.register_blueprint(account.blueprint)
    app.register_blueprint(api.blueprint)
    app.register_blueprint(measured.blueprint)
    app.register_blueprint(reducing.blueprint)
    app.register_blueprint(equations.blueprint)
    app.register_blueprint(bringing.blueprint)
    app.register_blueprint(working.blueprint)
    app.register_blueprint(taking.blueprint)
    app.register_blueprint(solving.blueprint)
    app.register_blueprint(shelf_api.blueprint)
    app.register_blueprint(handbook.blueprint)
    app.register_blueprint(handouts.blueprint)
    app.register_blueprint(hearing.blueprint)
    app.register_blueprint(operating.blueprint)
    app.register_blueprint(errands.blueprint)
    limits.limit(app, app.extensions["broker"])
    logging.getLogger("axispath").setLevel(logging.INFO)
    return app
