"""Landmarks and spans put in order, and those that go on into one another joined."""

from __future__ import annotations

import itertools
from dataclasses import replace

from flint import arb

from axispath.core.arithmetic.balls import precision
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.cuts import BITS, Found, Piece
from axispath.core.search.landmark import (
    BREAKS,
    Kind,
    Landmark,
    Open,
    Span,
    Stretch,
)
from axispath.core.search.scaled import ScaledFunction
from axispath.core.search.tower import FAR, sign


def in_order(landmarks: list[Landmark]) -> list[Landmark]:
    """By x, each kind once per place: neighbouring boxes may both report a shared end."""
    ordered: list[Landmark] = []
    for item in sorted(landmarks, key=lambda landmark: (landmark.x, landmark.kind)):
        twin = next((o for o in reversed(ordered[-8:]) if o.kind == item.kind), None)
        if twin and item.x - twin.x <= 2 * (item.radius + twin.radius):
            continue
        ordered.append(item)
    return ordered


def spans_of(
    function: ScaledFunction, piece: Piece, marks: list[Landmark], found: Found
) -> list[Span]:
    """Signs between neighbours, read off in the middle: they cannot change in between."""
    places = {piece.left.x, piece.right.x, *(mark.x for mark in marks)}
    for stretch in found.open:
        places |= {stretch.low, stretch.high}
    inside = sorted(x for x in places if piece.left.x <= x <= piece.right.x)
    spans = []
    for low, high in itertools.pairwise(inside):
        middle = low + (high - low) / 2
        if not low < middle < high or any(o.low <= middle <= o.high for o in found.open):
            continue
        signs = _signs(function, middle, found.flat)
        if signs is not None:
            spans.append(Span(low, high, *signs))
    return spans


def _signs(function: ScaledFunction, x: float, flat: frozenset[int]) -> tuple[int, int, int] | None:
    for bits in (BITS, *FAR):
        with precision(bits):
            try:
                levels = function.taylor(arb(x), 3)
            except OutsideDomain:
                return None
        value, slope, bend = (0 if k in flat else sign(level) for k, level in enumerate(levels))
        if all(s or k in flat for k, s in enumerate((value, slope, bend))):
            return value, slope, bend
    return None


def joined_spans(spans: list[Span], landmarks: list[Landmark], open_at: list[Open]) -> list[Span]:
    """Spans that differ in nothing become one, as at a y-intercept."""
    joined: list[Span] = []
    marks = {mark.x for mark in landmarks if mark.kind is not Kind.Y_INTERCEPT}
    marks |= {place for item in open_at for place in (item.low, item.high)}
    for span in sorted(spans, key=lambda s: s.low):
        last = joined[-1] if joined else None
        alike = last and (last.sign, last.direction, last.bend) == (
            span.sign,
            span.direction,
            span.bend,
        )
        if last and alike and last.high == span.low and span.low not in marks:
            joined[-1] = replace(last, high=span.high)
        else:
            joined.append(span)
    return joined


def merged_flat(
    stretches: list[Stretch], landmarks: list[Landmark], open_at: list[Open]
) -> list[Stretch]:
    """Stretches that go on into one another without a break."""
    broken = {mark.x for mark in landmarks if mark.kind in BREAKS}
    broken |= {place for item in open_at for place in (item.low, item.high)}
    joined: list[Stretch] = []
    for stretch in stretches:
        if joined and joined[-1].high == stretch.low and stretch.low not in broken:
            joined[-1] = Stretch(joined[-1].low, stretch.high)
        else:
            joined.append(stretch)
    return joined
