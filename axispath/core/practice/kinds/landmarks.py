"""Find all landmarks of a kind."""

from __future__ import annotations

from axispath.core.language.numbers import listed
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Range
from axispath.core.path.survey import ordered
from axispath.core.practice.asked import Answer, coarse_words, lane_of, summed, too_coarse
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.seen import at_place
from axispath.core.practice.sought import Sought, sought, whole
from axispath.core.practice.typed import Point, points
from axispath.core.search.landmark import Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.ends import typed_interval
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane

MEETING = "intersections"


def lanes_of(document: Document, question: Question) -> tuple[ResolvedLane, ...]:
    """The lane, or the two that meet. Raises EditRefused."""
    first = lane_of(document, question)
    if question.group != MEETING:
        return (first,)
    return first, lane_of(document, question, question.other or "none")


def checked(document: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    if question.group == MEETING and (not question.other or question.other == question.lane):
        raise EditRefused("Choose two lanes that meet.")
    lanes = lanes_of(document, question)
    for lane in lanes:
        if not lane.can(SEARCHED):
            raise EditRefused(f"{lane.name or 'This lane'} has no landmarks.")
        if lane.lane.hidden:
            raise EditRefused(f"{lane.name or 'This lane'} is hidden: show it first.")
    if question.group == MEETING:
        if ordered(*lanes) is None:
            raise EditRefused("Where these two meet is not searched for.")
    elif question.group not in SEARCHED[lanes[0].kind.key].groups:
        raise EditRefused(f"{lanes[0].name or 'This lane'} has no {question.group or 'such'} here.")
    _range(document, question)


def _range(document: Document, question: Question) -> Range | None:
    if not question.low.strip() and not question.high.strip():
        return None
    low, high = typed_interval(document, question.low, question.high)
    if low is None or high is None:
        raise EditRefused("Landmarks are searched for between two numbers.")
    return low, high


def truth(
    document: Document, question: Question, answer: Answer
) -> tuple[list[Sought], list[Path]]:
    """The landmarks asked for, and the paths that were searched for them."""
    ids = {lane.lane.id for lane in lanes_of(document, question)}
    only = tuple(
        lane.model_copy(update={"hidden": lane.hidden or lane.id not in ids})
        for lane in document.lanes
    )
    found = whole(
        document.model_copy(update={"lanes": only}), answer.effort, _range(document, question)
    )
    meeting = question.group == MEETING
    paths = [c.path for c in found.crossings] if meeting else [p for _, p in found.lanes if p]
    them = [one for one in sought(found) if one.group == question.group]
    return [one for one in them if (len(one.lanes) == 2) == meeting], paths


def asks(document: Document, question: Question) -> str:
    """The usual sentence."""
    lanes = lanes_of(document, question)
    names = listed(lane.name or "the curve" for lane in lanes)
    where = ""
    if question.low.strip() or question.high.strip():
        where = f" from {question.low or 'the left edge'} to {question.high or 'the right edge'}"
    return f"Find all {question.group} of {names}{where or ' in the view'}."


def marked(document: Document, question: Question, answer: Answer) -> Marked:
    """A list of places or points."""
    given = points(document, answer.text)
    them, paths = truth(document, question, answer)
    complete = all(path.complete for path in paths)
    unknown = "Not all of it is settled: there may be more."
    if not given and not them:
        if complete:
            return Marked(Verdict.RIGHT, ("Right: there are none, and the search was complete.",))
        return Marked(Verdict.OPEN, (f"None are known. {unknown}",))
    if not given:
        return Marked(Verdict.WRONG, (f"There are {question.group} here.",))
    left = list(them)
    wrong, again, rounded, hits = [], [], [], 0
    for point in given:
        hit = next((one for one in left if one.is_point(point)), None)
        if hit is not None:
            left.remove(hit)
            hits += 1
            if not point.x.meets(hit.place):
                rounded.append(point.x)
        elif any(one.is_point(point) for one in them):
            again.append(f"{point.x.text} is there twice.")
        elif _may_be_open(paths, point):
            wrong.append(f"What is at {point.x.text} is not settled.")
        else:
            wrong.append(_why(document, question, them, point))
    coarse = too_coarse(rounded, question.decimals)
    more = [coarse_words(coarse, question.decimals)] if coarse else []
    return summed(hits, len(them), [*wrong, *again], complete, unknown, more)


def _may_be_open(paths: list[Path], point: Point) -> bool:
    x = point.x.x
    return any(item.low <= x <= item.high for path in paths for item in path.open)


def _why(document: Document, question: Question, them: list[Sought], point: Point) -> str:
    text = point.x.text
    at = next((one for one in them if one.is_at(point.x)), None)
    if at is not None and point.y is not None:
        return f"At x = {text} the height is not {point.y.text}."
    reach = (document.view.right - document.view.left) / 20
    near = min(them, key=lambda one: abs(one.mark.x - point.x.x), default=None)
    lanes = lanes_of(document, question)
    there = at_place(question.group, lanes, point.x.end.ball)
    if near is not None and abs(near.mark.x - point.x.x) <= reach:
        side = "right" if near.mark.x > point.x.x else "left"
        return f"{text} is near: one lies a little to the {side}. {there}"
    return f"{text} is none of them. {there}"


LANDMARKS = Asking(
    "find all landmarks of a kind",
    ("lane", "group", "other", "low", "high", "decimals"),
    asks,
    marked,
    checked,
    "such as −1, 2 ± √3 or (1, 2)",
)
