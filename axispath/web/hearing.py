"""Curves to be heard: what the page plays."""

from __future__ import annotations

from dataclasses import asdict

from flask import Blueprint, Response

from axispath.budgets import USUAL_SEARCH
from axispath.core.path.heard import heard
from axispath.web.asked import Hearing, answered, body
from axispath.web.computing import computed

blueprint = Blueprint("hearing", __name__, url_prefix="/api")


@blueprint.post("/sheets/<key>/hear")
@computed()
def hear(key: str) -> Response:
    """A function over the view or a part of it, at even steps, with its landmarks."""
    wanted = Hearing.model_validate(body())
    document = wanted.document(key)
    low = document.view.left if wanted.low is None else wanted.low
    high = document.view.right if wanted.high is None else wanted.high
    return answered(asdict(heard(document, wanted.lane, low, high, USUAL_SEARCH)))
