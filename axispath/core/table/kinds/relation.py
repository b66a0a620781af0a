"""Relations and regions read along a line x = a, and in words."""

from __future__ import annotations

import math

from axispath.core.language.numbers import decimal, listed
from axispath.core.path.relations.regions import Over, over
from axispath.core.path.relations.rules import heights, rules_of
from axispath.core.plane.area import size_of
from axispath.core.plane.empty import any_point
from axispath.core.plane.endless import endless
from axispath.core.plane.member import belongs
from axispath.core.plane.picture import borders, curve_drawn, shaded
from axispath.core.plane.relation import Relation, relation_of
from axispath.core.plane.screen import Screen
from axispath.core.search.budget import Budget
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.table.kinds.register import Described, Read

EVALUATIONS = 600
MOST_SHOWN = 6
UNSETTLED = "whether there is any of it over this x is not settled"
COARSE = 240, 180  # pixels of the picture that words are taken from


def read_relation(document: Document, lane: ResolvedLane, x: float) -> Read:
    """All y of a relation over an x, within the view."""
    view = document.view
    found, settled = heights(rules_of(lane), (view.bottom, view.top), x, Budget(EVALUATIONS))
    relation = relation_of(lane)
    kept = [y for y in found if relation.holds_at(x, y)]
    if not kept:
        why = "no point of it over this x, within the view" if settled else UNSETTLED
        return Read(lane, math.nan, "—", why, math.nan)
    shown = [decimal(y, document.digits, 1e-14 * (1 + abs(y))) for y in kept[:MOST_SHOWN]]
    more = f" and {len(kept) - MOST_SHOWN} more" if len(kept) > MOST_SHOWN else ""
    text = f"{'; '.join(shown)}{more}"
    if len(kept) == 1:
        return Read(lane, kept[0], text, None, math.nan)
    return Read(lane, math.nan, text, f"{len(kept)} points of it over this x", math.nan)


def read_region(document: Document, lane: ResolvedLane, x: float) -> Read:
    """The stretches of y over an x that belong to a region, within the view."""
    relation, view = relation_of(lane), document.view
    ends = view.bottom, view.top
    found = over(lane, relation, ends, x, Budget(EVALUATIONS))
    stretches, digits = found.stretches, document.digits
    if not stretches:
        return _borders_alone(lane, relation, x, found, digits)
    told = []
    for low, high in stretches[:MOST_SHOWN]:
        shown = [
            "" if end == edge else decimal(end, digits, 1e-14 * (1 + abs(end)))
            for end, edge in ((low, view.bottom), (high, view.top))
        ]
        told.append(_stretch(*shown))
    return Read(lane, math.nan, f"y {' or '.join(told)}", "a stretch of y over this x", math.nan)


def _borders_alone(
    lane: ResolvedLane, relation: Relation, x: float, found: Over, digits: int
) -> Read:
    """What of a region lies over an x where it is no stretch: places on its borders, or nothing."""
    told = {y: belongs(relation, x, y) for y in found.cuts}
    there = [y for y, is_there in told.items() if is_there]
    if there:
        shown = "; ".join(decimal(y, digits) for y in there)
        height = there[0] if len(there) == 1 else math.nan
        return Read(lane, height, f"y = {shown}", "on its border alone", math.nan)
    if not found.complete or None in told.values():
        return Read(lane, math.nan, "—", UNSETTLED, math.nan)
    return Read(lane, math.nan, "—", "nothing of it over this x, within the view", math.nan)


def _stretch(low: str, high: str) -> str:
    if low and high:
        return f"from {low} to {high}"
    return f"above {low}" if low else f"below {high}" if high else "anywhere in the view"


def _coarse(document: Document) -> Screen:
    view = document.view
    return Screen(view.left, view.right, view.bottom, view.top, *COARSE)


COUNTED = (
    (Kind.CROSSING, "crossing of itself", "crossings of itself"),
    (Kind.CUSP, "cusp", "cusps"),
    (Kind.ISOLATED, "single point", "single points"),
)
ENDS = (("x", "leftmost", "rightmost"), ("y", "lowest", "highest"))


def in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """A relation: what it has, and between what it lies."""
    if (unseen := why_unseen(lane, path, document)) is not None:
        return unseen
    marks = path.landmarks if path is not None else ()
    counts = [
        f"{count} {one if count == 1 else many}"
        for kind, one, many in COUNTED
        if (count := sum(mark.kind is kind for mark in marks))
    ]
    has = f" with {listed(counts)}" if counts else ""
    box = []
    for letter, *words in ENDS:
        ends = [next((m for m in marks if word in m.extremes), None) for word in words]
        if all(end is not None for end in ends):
            shown = [decimal(getattr(end, letter), document.digits) for end in ends]
            box.append(f"between {letter} = {shown[0]} and {shown[1]}")
    where = f", {' and '.join(box)}" if box else ""
    return f"{lane.name} is a curve that an equation describes{has}{where}."


def why_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why nothing of a relation shows; None where something does."""
    relation = relation_of(lane)
    assert relation.curve is not None
    found = curve_drawn(relation, relation.curve, _coarse(document))
    if len(found.segments) or len(found.dots) or len(found.open):
        return None
    return f"{lane.name} has no point at all in this view."


def region_in_words(lane: ResolvedLane, path: Path | None, document: Document) -> str:
    """A region: its corners, and whether it goes on beyond the view."""
    if (unseen := region_unseen(lane, path, document)) is not None:
        return unseen
    corners = path.of(Kind.CORNER) if path is not None else ()
    digits = document.digits
    told = [f"({decimal(m.x, digits)}, {decimal(m.y, digits)})" for m in corners[:MOST_SHOWN]]
    has = f" with {'a corner' if len(told) == 1 else 'corners'} at {listed(told)}" if told else ""
    return (
        f"{lane.name} is a region{has}; {size_in_words(relation_of(lane), document.view, digits)}."
    )


def size_in_words(relation: Relation, view: View, digits: int) -> str:
    """How large a region is in the view, enclosed, and whether it reaches the view's edge."""
    rectangle = (view.left, view.right, view.bottom, view.top)
    found = size_of(relation, rectangle)
    shown = decimal(found.area, digits, found.error)
    without = endless(relation, rectangle)
    if found.inside:
        bounded = ", and it is bounded" if without is False else ""
        return f"its area here is {shown}; none of it reaches the view’s edge{bounded}"
    beyond = {
        True: "it goes on without end",
        False: "it is bounded, but reaches beyond the view",
        None: "it reaches the view’s edge",
    }
    return f"its area within the view is {shown}; {beyond[without]}"


def region_unseen(lane: ResolvedLane, path: Path | None, document: Document) -> str | None:
    """Why nothing of a region shows; None where something does."""
    relation, frame = relation_of(lane), _coarse(document)
    if len(shaded(relation, frame)) or any(map(len, borders(relation, frame))):
        return None
    view = document.view
    found = any_point(relation, (view.left, view.right, view.bottom, view.top))
    if found.place is not None:
        x, y = (decimal(value, document.digits) for value in found.place)
        return f"{lane.name} is too small or too thin to be seen here: ({x}, {y}) belongs to it."
    if found.settled:
        return f"{lane.name} has no point in this view."
    assert found.about is not None
    x, y = (decimal(value, 3) for value in found.about)
    return (
        f"No point of {lane.name} is seen in this view; whether there is one near ({x}, {y}) "
        "is not settled."
    )


DESCRIBED_RELATION = Described(in_words, why_unseen)
DESCRIBED_REGION = Described(region_in_words, region_unseen)
