"""Formulas as answers: read as functions of x, and what tells two of them apart."""

from __future__ import annotations

import math

from axispath.core.practice.asked import shown
from axispath.core.practice.sameness import Apart
from axispath.core.sheet.document import MAX_LANES, Document, called
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve

TRIED = "tried"  # the lane that a typed formula becomes while it is compared


def typed_function(document: Document, text: str) -> ResolvedLane:
    """A formula as a function of x on this sheet. Raises EditRefused."""
    if not text.strip():
        raise EditRefused("There is no formula yet.")
    formula = text.split("=", 1)[1] if text.count("=") == 1 else text
    others = document.lanes[: MAX_LANES - 1]
    probe = document.model_copy(update={"lanes": (*others, called(TRIED, formula, "tried curve"))})
    lane = resolve(probe).lane(TRIED)
    if lane is None or lane.error is not None:
        message = lane.error.message if lane is not None and lane.error is not None else ""
        raise EditRefused(f"“{text[:60]}” is not read as a formula. {message}".strip())
    if lane.missing:
        raise EditRefused(f"“{text[:60]}” uses {lane.missing[0]}, which has no value here.")
    if lane.kind.key == "value":
        raise EditRefused(
            f"“{text[:60]}” is a number; write y = {formula.strip()} + 0 x for a line."
        )
    if lane.kind.key != "function":
        raise EditRefused(f"“{text[:60]}” is not a function of x.")
    return lane


def ends_of(document: Document) -> tuple[float, float]:
    """Where curves are compared: the view."""
    return document.view.left, document.view.right


def differs(found: Apart, one: str, other: str) -> str:
    """Where two functions differ."""
    values = [
        f"{name} {'has no value' if math.isnan(y) else f'is {shown(y)}'}"
        for name, y in ((one, found.one), (other, found.other))
    ]
    return f"At x = {shown(found.x)} {values[0]}, {values[1]}."
