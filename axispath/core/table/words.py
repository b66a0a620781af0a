"""What the plot shows, in sentences: for screen readers, and where nothing shows."""

from __future__ import annotations

import numpy as np

from axispath.core.language.numbers import decimal, listed
from axispath.core.path.landmark import Kind, Path
from axispath.core.path.lanes import path_of, share
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.values import column

SAMPLES = 400


def in_words(document: Document) -> str:
    """The visible lanes described by their paths."""
    view = document.view
    sentences = []
    lanes = resolve(document).functions()
    for lane in lanes:
        path = path_of(lane, view.left, view.right, share(len(lanes)))
        sentences.append(_described(lane, path, document.digits))
    return " ".join(sentences) or "The plot is empty."


def _described(lane: ResolvedLane, path: Path | None, digits: int) -> str:
    if path is None:
        return f"{lane.name} is not in this view."
    if path.undefined and not path.spans:
        return f"{lane.name} is undefined here."
    phrases = []
    for kind, one in ((Kind.ZERO, "zero"), (Kind.MAXIMUM, "maximum"), (Kind.MINIMUM, "minimum")):
        marks = path.of(kind)[:6]
        if marks:
            at = ", ".join(decimal(mark.x, digits) for mark in marks)
            phrases.append(f"{one if len(marks) == 1 else KINDS[kind]} at {at}")
    found = "; ".join(phrases) or "no zeros and no turning points"
    return f"{lane.name} from {decimal(path.low, digits)} to {decimal(path.high, digits)}: {found}."


KINDS = {Kind.ZERO: "zeros", Kind.MAXIMUM: "maxima", Kind.MINIMUM: "minima"}


def explain_empty(document: Document) -> tuple[str, bool]:
    """Why no curve shows, and whether framing would help; an empty text where one shows."""
    sheet = resolve(document)
    if not sheet.lanes:
        return "", False
    shown = sheet.functions()
    if not shown:
        return _nothing_to_show(document), False
    reasons = [_why_unseen(lane, document) for lane in shown]
    if any(reason is None for reason in reasons):
        return "", False
    undefined = [reason for reason in reasons if reason and "undefined" in reason]
    can_frame = len(undefined) < len(reasons)
    return " ".join(dict.fromkeys(reason for reason in reasons if reason)), can_frame


def _nothing_to_show(document: Document) -> str:
    sheet = resolve(document)
    if any(lane.plottable for lane in sheet):
        return "Every function is hidden."
    waiting = [name for lane in sheet for name in lane.missing]
    if waiting:
        names = listed(dict.fromkeys(waiting))
        verb = "has" if len(set(waiting)) == 1 else "have"
        return f"Nothing can be drawn yet: {names} {verb} no value."
    return ""


def _why_unseen(lane: ResolvedLane, document: Document) -> str | None:
    """Why a lane does not show in the view; None where it does."""
    view = document.view
    values = column(lane, np.linspace(view.left, view.right, SAMPLES)).values
    defined = np.isfinite(values)
    if ((values >= view.bottom) & (values <= view.top)).any():
        return None
    if defined.any():
        above = bool(np.nanmin(values[defined]) > view.top)
        below = bool(np.nanmax(values[defined]) < view.bottom)
        where = "above" if above else "below" if below else "outside"
        return f"{lane.name} lies {where} this view."
    low, high = lane.ends
    if (low and low.x > view.right) or (high and high.x < view.left):
        return f"The domain of {lane.name} lies outside this view."
    path = path_of(lane, view.left, view.right, share(len(resolve(document).functions())))
    if path is not None and path.undefined and not path.spans and not path.open:
        return f"{lane.name} is undefined everywhere here."
    return f"{lane.name} is undefined, or not in this view."
