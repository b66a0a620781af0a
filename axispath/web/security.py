"""Headers and CSRF protection for everything that is served."""

from __future__ import annotations

from flask import Flask, Response, request
from flask_wtf import CSRFProtect

from axispath.web.asked import refuse_strange
from axispath.web.inside import VIEWS

# What is about people, and is not kept by a browser that others may use after them.
PRIVATE = ("account.", "sealed.", "handouts.listed")
LOOKS = "/api/sheets/link."  # with POST, and yet nothing but looks at a hand-out
SHORTEST_SECRET = 32  # characters of the key that signs cookies
POLICY = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self'",
        "font-src 'self'",
        "img-src 'self' data:",
        "connect-src 'self'",
        "form-action 'self'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
    )
)
HEADERS = {
    "Content-Security-Policy": POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=()",
}

# A page has dozens of such files, and policies of documents say nothing about them.
NO_DOCUMENTS = ("text/javascript", "text/css", "font/woff2")
HEADERS_OF_FILES = {"X-Content-Type-Options": "nosniff"}


def protect(app: Flask) -> None:
    """Demand a CSRF token for every change, refuse signs that nothing can hold, and send strict
    headers with every answer.
    """
    csrf = CSRFProtect(app)
    app.config["WTF_CSRF_CHECK_DEFAULT"] = False

    @app.before_request
    def check() -> None:
        # A hand-out is read in frames of other pages too, where a browser sends no cookie: there
        # is nothing that a look at it could change, and what computes does nothing but look.
        view = app.view_functions.get(request.endpoint or "")
        looks = view is not None and f"{view.__module__}.{view.__name__}" in VIEWS
        # A managing device has no page, and signs what it says.
        if not (looks and request.path.startswith(LOOKS)) and request.endpoint != "sealed.locked":
            csrf.protect()
        # What a script sends is looked at where it is read.
        for given in (request.form, request.args):
            refuse_strange([*given.keys(), *given.listvalues()])

    @app.after_request
    def add_headers(response: Response) -> Response:
        if (request.endpoint or "").startswith(PRIVATE):
            response.headers.setdefault("Cache-Control", "no-store")
        plain = request.endpoint == "versioned" and response.mimetype in NO_DOCUMENTS
        for name, value in (HEADERS_OF_FILES if plain else HEADERS).items():
            response.headers.setdefault(name, value)
        return response
