"""A guess at a covered landmark: clicked on plot or strip, taken from a row, or typed."""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axispath.core.language.numbers import listed
from axispath.core.path.covering import is_covered
from axispath.core.path.survey import Survey
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.seen import at_place, instead, shown, side_of
from axispath.core.practice.sought import Sought, covered, open_paths, sought
from axispath.core.practice.typed import Point
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.refused import EditRefused

HUNDREDTH = 0.01  # of the view: so close is a click right
NEAR = 0.05  # of the view: so close it is told on which side
NAMES = {
    "zeros": "a zero",
    "turning points": "a turning point",
    "inflections": "an inflection",
    "breaks": "a break",
    "intersections": "an intersection",
}


@dataclass(frozen=True, slots=True)
class Click:
    """A place that was clicked; without ``y`` on a strip."""

    x: float
    y: float | None = None


@dataclass(frozen=True, slots=True)
class Guess:
    """Where somebody thinks that a landmark is: of a ``group`` or of any, of a lane or of any."""

    at: Click | Point
    group: str = ""
    lane: str = ""

    @property
    def x(self) -> float:
        """The place."""
        return self.at.x.x if isinstance(self.at, Point) else self.at.x


def marked(document: Document, found: Survey, guess: Guess) -> Marked:
    """How a guess is marked; ``found`` is a look at the sheet without its cover."""
    if not document.cover.on:
        raise EditRefused("Nothing is covered here.")
    hidden = covered(document, found)
    wanted = [one for one in hidden if _is_meant(one, guess)]
    hits = [one for one in wanted if _hits(document.view, one, guess.at)]
    # Several may lie at one place: those that were not found come first.
    new = [one for one in hits if not one.is_found(document.found)]
    hit = _nearest(new or hits, guess.x)
    if hit is not None:
        return _right(document, found, hit, hidden)
    close = _nearest([one for one in wanted if _is_near(document.view, one, guess.at)], guess.x)
    if close is not None and not close.is_found(document.found):
        return Marked(Verdict.NEAR, (_near(close, guess),))
    return Marked(Verdict.WRONG, (_what_is_there(document, found, guess),))


def _is_meant(one: Sought, guess: Guess) -> bool:
    of_lane = not guess.lane or any(lane.lane.id == guess.lane for lane in one.lanes)
    return of_lane and (not guess.group or one.group == guess.group)


def _nearest(them: list[Sought], x: float) -> Sought | None:
    return min(them, key=lambda one: abs(one.mark.x - x), default=None)


def _hits(view: View, one: Sought, at: Click | Point) -> bool:
    """A click to a hundredth of the view, a number to its digits."""
    return one.is_point(at) if isinstance(at, Point) else _within(view, one, at, HUNDREDTH)


def _within(view: View, one: Sought, at: Click, share: float) -> bool:
    across = abs(one.mark.x - at.x) <= share * (view.right - view.left) + one.mark.radius
    if at.y is None or not abs(one.mark.y) < 1e300:
        return across
    return across and abs(one.mark.y - at.y) <= share * (view.top - view.bottom) + one.mark.y_radius


def _is_near(view: View, one: Sought, at: Click | Point) -> bool:
    click = Click(at.x.x, at.y.x if at.y else None) if isinstance(at, Point) else at
    return _within(view, one, click, NEAR)


def _near(close: Sought, guess: Guess) -> str:
    """On which side, or that it is the height that is off."""
    at = guess.at
    if isinstance(at, Point):
        if close.is_at(at.x):
            return f"The place x = {at.x.text} is right, its height is not."
        if at.x.slack:
            side = side_of(close, guess.x)
            return f"Near: {close.called} lies a little to the {side} of {at.x.text}."
    return f"Near: {close.called} lies a little to the {side_of(close, guess.x)}."


def _right(document: Document, found: Survey, hit: Sought, hidden: list[Sought]) -> Marked:
    if hit.is_found(document.found):
        return Marked(Verdict.AGAIN, (f"You have this one already: it is {hit.called}.",))
    known = (*document.found, hit.found)
    words = [f"Yes: {hit.called}, at x = {shown(hit.mark.x)}."]
    words += told_of_all(document, found, [one for one in hidden if not one.is_found(known)])
    return Marked(Verdict.RIGHT, tuple(words), (hit.found,))


def told_of_all(document: Document, found: Survey, left: list[Sought]) -> list[str]:
    """That these are all, where nothing is left and the search was complete."""
    if left:
        return []
    unknown = open_paths(document, found)
    if not unknown:
        return ["That is all of them: the search was complete."]
    names = listed(dict.fromkeys(name for name, _ in unknown))
    return [f"No more are known, but not all of {names} is settled: there may be more."]


def _what_is_there(document: Document, found: Survey, guess: Guess) -> str:
    """Another landmark, or what the functions do there."""
    wanted = NAMES.get(guess.group, "a landmark that is covered")
    others = [
        one
        for one in sought(found)
        if (not guess.lane or any(lane.lane.id == guess.lane for lane in one.lanes))
        and (not guess.group or one.group != guess.group)
        and not is_covered(document, one.key, one.mark.kind)
    ]
    there = _nearest([one for one in others if _hits(document.view, one, guess.at)], guess.x)
    if there is not None:
        return instead(there, wanted)
    lanes = [lane for lane, _ in found.lanes if not guess.lane or lane.lane.id == guess.lane]
    x = guess.at.x.end.ball if isinstance(guess.at, Point) else arb(guess.at.x)
    if not lanes:
        return f"There is nothing at x = {shown(x)}."
    told = [at_place(guess.group, (lane,), x) for lane in lanes[:2]]
    return f"Not {wanted}. {' '.join(told)}"
