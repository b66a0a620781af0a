"""Hints at covered landmarks: how many, between which, by which method, and one of them."""

from __future__ import annotations

import math

from flint import arb

from axispath.core.language.numbers import listed
from axispath.core.path.survey import Survey
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.seen import shown, value_at
from axispath.core.practice.sought import Sought, covered, open_paths
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Found
from axispath.core.sheet.refused import EditRefused

STEPS = ("how many there are", "between which numbers", "the method", "show one")
HALVINGS = 4
METHODS = {
    "turning points": "A smooth function turns where its slope is 0: lay tangents with the key T "
    "and follow where their slope changes its sign.",
    "inflections": "The bend changes there: the slope is largest or smallest between neighbours.",
    "breaks": "Look for what has no value: a denominator of 0, a root of a negative number, the "
    "end of a domain, or a case that begins.",
    "intersections": "Where two curves meet their difference is 0: read both at one x and follow "
    "which is the larger.",
}
USUAL = "Read the lane at several x and follow how it changes."


def hint(document: Document, found: Survey, step: int, group: str = "", lane: str = "") -> Marked:
    """One step of help with what is covered and not found yet; the last one finds it.

    Raises EditRefused where nothing is covered, or there is no such step.
    """
    if not document.cover.on:
        raise EditRefused("Nothing is covered here.")
    if not 0 <= step < len(STEPS):
        raise EditRefused("There is no such hint.")
    left = [
        one
        for one in covered(document, found)
        if not one.is_found(document.found)
        and (not group or one.group == group)
        and (not lane or any(of.lane.id == lane for of in one.lanes))
    ]
    unsettled = open_paths(document, found)
    if not left:
        words = "No more are known, but not all is settled." if unsettled else "There are no more."
        return Marked(Verdict.KEPT, (words,))
    first = min(left, key=lambda one: abs(one.mark.x))
    if step == 0:
        return Marked(Verdict.KEPT, (_how_many(left, bool(unsettled)),))
    if step == 1:
        low, high = _between(document, first)
        words = f"{_capital(first.called)} lies between x = {shown(low)} and x = {shown(high)}."
        return Marked(Verdict.KEPT, (words,))
    if step == 2:
        return Marked(Verdict.KEPT, (_method(document, first),))
    kept = first.found
    shown_one = Found(key=kept.key, kind=kept.kind, x=kept.x, y=kept.y, shown=True)
    return Marked(
        Verdict.KEPT, (f"{_capital(first.called)} is at x = {shown(first.mark.x)}.",), (shown_one,)
    )


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _how_many(left: list[Sought], unsettled: bool) -> str:
    counts: dict[tuple[str, str], int] = {}
    for one in left:
        counts[one.group, one.name] = counts.get((one.group, one.name), 0) + 1
    told = [
        f"{count} {group if count > 1 else group.removesuffix('s')} of {name}"
        for (group, name), count in counts.items()
    ]
    least = "At least still to be found: " if unsettled else "Still to be found: "
    return f"{least}{listed(told)}."


def _between(document: Document, one: Sought) -> tuple[float, float]:
    """Two round numbers around a place, a tenth of the view apart or so."""
    width = document.view.right - document.view.left
    step = 10.0 ** math.floor(math.log10(width / 8))
    low = math.floor(one.mark.x / step) * step
    return (low - step, low + step) if low == one.mark.x else (low, low + step)


def _method(document: Document, one: Sought) -> str:
    """How it could be found; for a zero the first halvings of an interval."""
    lane = one.lanes[0]
    if one.group != "zeros" or lane.kind.key != "function":
        return METHODS.get(one.group, USUAL)
    low, high = _between(document, one)
    signs = [value_at(lane, arb(x)) for x in (low, high)]
    if any(y is None or y.contains(0) for y in signs) or (signs[0] > 0) == (signs[1] > 0):  # type: ignore[operator]
        return f"Solve {lane.name}(x) = 0: take out common factors, or use a formula that you know."
    steps = []
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        value = value_at(lane, arb(middle))
        if value is None or value.contains(0):
            break
        steps.append(f"{lane.name}({shown(middle)}) is {'above' if value > 0 else 'below'} 0")
        same = (value > 0) == (signs[0] > 0)  # type: ignore[operator]
        low, high = (middle, high) if same else (low, middle)
    return (
        f"{lane.name} changes its sign, so halve the interval and keep the half with the change: "
        f"{listed(steps)}; so it lies between {shown(low)} and {shown(high)}, and so on."
    )
