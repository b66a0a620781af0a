"""What people and scripts are told when something goes wrong."""

from __future__ import annotations

import logging

from flask import Flask, Response, jsonify, render_template, request
from flask.typing import ResponseReturnValue
from flask_wtf.csrf import CSRFError
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.sheet.refused import EditRefused
from axispath.core.table.rows import TableRefused
from axispath.store.access import Ended
from axispath.store.database import StoreGone
from axispath.store.errands import TooMany
from axispath.store.sheets import Conflict, NotFound
from axispath.web.person import was_signed_out
from axispath.work.protocol import TOO_LARGE, TOO_LONG, Busy, Cut, way

log = logging.getLogger("axispath")


def answer(app: Flask) -> None:
    """Give every error a sentence: JSON for scripts, a page for people."""

    @app.errorhandler(EditRefused)
    def refused(error: EditRefused) -> ResponseReturnValue:
        if not _by_script():
            return told(422, error.message)
        found = {
            "kind": "refused",
            "message": error.message,
            "start": error.start,
            "end": error.end,
            "mend": error.mend,
            "mends": error.mends or ((error.mend,) if error.mend else ()),
        }
        return jsonify(found), 422

    @app.errorhandler(TableRefused)
    def no_table(error: TableRefused) -> ResponseReturnValue:
        return jsonify(kind="refused", message=error.message, field=error.field), 422

    @app.errorhandler(OutOfTime)
    def too_long(_: OutOfTime) -> ResponseReturnValue:
        return told(422, TOO_LONG, "refused")

    @app.errorhandler(MemoryError)
    def too_large(_: MemoryError) -> ResponseReturnValue:
        return told(422, TOO_LARGE, "refused")

    @app.errorhandler(Cut)
    def cut(error: Cut) -> ResponseReturnValue:
        return told(422, error.message, "refused")

    @app.errorhandler(Busy)
    @app.errorhandler(TooMany)
    def busy(_: Exception) -> ResponseReturnValue:
        found, status = told(429, "Busy just now, trying again …")
        return found, status, {"Retry-After": "1", "Refresh": "2"}

    @app.errorhandler(ValidationError)
    def invalid(error: ValidationError) -> ResponseReturnValue:
        return jsonify(kind="refused", message=_sentence(error)), 422

    @app.errorhandler(Conflict)
    def conflict(error: Conflict) -> ResponseReturnValue:
        message = "This sheet was changed in another window in the meantime."
        return jsonify(kind="conflict", message=message, head=error.head), 409

    @app.errorhandler(Ended)
    def ended(_: Ended) -> ResponseReturnValue:
        return told(410, "This hand-out has ended: whoever gave it has taken it back.", "refused")

    @app.errorhandler(NotFound)
    def not_found(_: NotFound) -> ResponseReturnValue:
        if was_signed_out():
            return told(401, SIGNED_OUT, "signed out")
        return told(404, "There is no such sheet here.")

    @app.errorhandler(StoreGone)
    def gone(error: StoreGone) -> ResponseReturnValue:
        log.error("the database cannot be reached: %s", type(error.__cause__).__name__)
        message = "The sheets cannot be reached just now."
        body, status = told(503, message)
        return body, status, {"Retry-After": "2"}

    @app.errorhandler(CSRFError)
    def stale(_: CSRFError) -> ResponseReturnValue:
        message = "This page has been open for too long. Please reload it: what waits is kept."
        return told(400, message, "stale")

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> ResponseReturnValue:
        sentences = {
            404: "There is nothing at this address.",
            405: "This cannot be done here.",
            413: "That is more than a sheet can take at once.",
        }
        code = error.code or 500
        return told(code, sentences.get(code, "This request is not valid."))

    @app.errorhandler(Exception)
    def unexpected(error: Exception) -> ResponseReturnValue:
        # Its message and its values may hold what was typed, so only its kind and way are logged.
        # The rule of an address, not the address: that may hold the token of a hand-out.
        log.error("unexpected %s at %s: %s", type(error).__name__, request.url_rule, way(error))
        return told(500, "Something went wrong here. What you typed is still in this page.")


SIGNED_OUT = (
    "This browser was signed out. Sign in again, under Account on the shelf: what waits here is "
    "kept, and saved then."
)


def _by_script() -> bool:
    return request.path.startswith("/api/")


def told(status: int, message: str, kind: str = "trouble") -> tuple[Response | str, int]:
    """A sentence with a status: as JSON for scripts, on a page for people."""
    if _by_script():
        return jsonify(kind=kind, message=message), status
    return render_template("trouble.html", message=message, status=status), status


def _sentence(error: ValidationError) -> str:
    first = error.errors(include_input=False, include_url=False)[0]
    if first["type"] == "value_error":
        return str(first["msg"]).removeprefix("Value error, ")
    if first["type"] == "string_too_long":
        return f"This is too long: {first['ctx']['max_length']} characters at most."
    if first["type"] == "finite_number":
        return "The limits have to be ordinary, finite numbers."
    where = ".".join(str(part) for part in first["loc"])
    return f"This request is not valid ({where})."
