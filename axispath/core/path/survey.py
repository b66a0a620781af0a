"""Everything that one look at a sheet finds: the paths of its lanes and where they meet."""

from __future__ import annotations

import itertools
from contextlib import suppress
from dataclasses import dataclass, replace

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.checking.survey import confirmed
from axispath.core.path.covering import uncovered
from axispath.core.path.kinds import MEETS, SEARCHED
from axispath.core.path.labels import crossing_key
from axispath.core.path.lanes import (
    MOST_CROSSED,
    USUAL,
    Crossing,
    Effort,
    Range,
)
from axispath.core.search.landmark import Path, Reason
from axispath.core.sheet.document import Document, View
from axispath.core.sheet.resolve import ResolvedLane, resolve

# Of these a landmark may lie where a denominator that was left out is 0.
CONFIRMED = ("relation",)


@dataclass(frozen=True)
class Survey:
    """The shown lanes that have landmarks, each with its path (None where it is not in view)."""

    lanes: tuple[tuple[ResolvedLane, Path | None], ...]
    crossings: tuple[Crossing, ...]

    @property
    def paths(self) -> list[Path]:
        """The paths of the lanes, and those of the crossings."""
        paths = [path for _, path in self.lanes if path is not None]
        return [*paths, *(crossing.path for crossing in self.crossings)]

    @property
    def named(self) -> list[tuple[str, Path]]:
        """The paths with what they are called in lists: f, or f = g where two lanes meet."""
        own = [(lane.name or "", path) for lane, path in self.lanes if path is not None]
        met = [(f"{c.first.name} = {c.second.name}", c.path) for c in self.crossings]
        return [*own, *met]

    @property
    def complete(self) -> bool:
        """Whether nothing was left open."""
        return all(path.complete for path in self.paths)

    @property
    def goes_on(self) -> bool:
        """Whether a longer search could settle something that is open."""
        return any(unsearched(path) for path in self.paths)


def moving_survey(
    document: Document, only: Range | None = None, patience: Patience | None = None
) -> Survey:
    """The same in floating point and without proof, while something moves.

    A lane that takes longer than ``patience`` has no path then.
    """
    view = document.view
    lanes = []
    for lane in resolve(document).shown(SEARCHED):
        path = None
        with suppress(OutOfTime), limited(patience):
            path = SEARCHED[lane.kind.key].quick(lane, view, only)
        lanes.append((lane, path))
    return seen(document, Survey(tuple(lanes), ()))


def seen(document: Document, found: Survey) -> Survey:
    """A look without what is under the sheet's cover."""
    if not document.cover.on:
        return found
    return Survey(
        tuple(
            (lane, path and uncovered(document, lane.lane.id, path)) for lane, path in found.lanes
        ),
        tuple(
            replace(c, path=uncovered(document, crossing_key(c), c.path)) for c in found.crossings
        ),
    )


def survey(document: Document, effort: Effort = USUAL, only: Range | None = None) -> Survey:
    """Look at all shown functions in the document's view, or on a part of the axis.

    Each lane and each pair of lanes gets what ``effort`` says for one of so many searches.
    """
    view = document.view
    lanes = resolve(document).shown(SEARCHED)
    paths = tuple((lane, lane_path(lane, view, effort, len(lanes), only)) for lane in lanes)
    return seen(document, Survey(paths, tuple(crossings(lanes, view, effort, only))))


def crossings(
    lanes: list[ResolvedLane],
    view: View,
    effort: Effort = USUAL,
    only: Range | None = None,
) -> list[Crossing]:
    """The intersections of every two lanes; of more than MOST_CROSSED the first ones only."""
    pairs = [ordered(*pair) for pair in itertools.combinations(lanes[:MOST_CROSSED], 2)]
    known = [pair for pair in pairs if pair is not None]
    found = []
    for first, second in known:
        path = _met(first, second, view, effort, len(known), only)
        if path is not None:
            found.append(Crossing(first, second, path))
    return found


def ordered(one: ResolvedLane, other: ResolvedLane) -> tuple[ResolvedLane, ResolvedLane] | None:
    """Two lanes in the order in which the register has their kinds; None where it has not."""
    pairs = ((one, other), (other, one))
    return next((p for p in pairs if (p[0].kind.key, p[1].kind.key) in MEETS), None)


def _met(
    first: ResolvedLane,
    second: ResolvedLane,
    view: View,
    effort: Effort,
    searches: int,
    only: Range | None,
) -> Path | None:
    search = MEETS[first.kind.key, second.kind.key]
    path = search(first, second, view, effort.budget(searches), only)
    return path and confirmed((first, second), path)


def lane_path(
    lane: ResolvedLane, view: View, effort: Effort, searches: int, only: Range | None
) -> Path | None:
    """The landmarks of one lane, as its kind has them, as one of so many searches."""
    search = SEARCHED[lane.kind.key].path
    path = search(lane, view, effort, searches, only)
    return path and confirmed((lane,), path) if lane.kind.key in CONFIRMED else path


def further(document: Document, found: Survey, effort: Effort, only: Range | None = None) -> Survey:
    """The same with what is still open searched on: these share the whole ``effort``."""
    view = document.view
    each = effort.shared(sum(unsearched(path) for path in found.paths))
    lanes = tuple(
        (lane, lane_path(lane, view, each, 1, only) if unsearched(path) else path)
        for lane, path in found.lanes
    )
    return seen(
        document, Survey(lanes, tuple(_again(c, view, each, only) for c in found.crossings))
    )


def _again(crossing: Crossing, view: View, effort: Effort, only: Range | None) -> Crossing:
    if not unsearched(crossing.path):
        return crossing
    path = _met(crossing.first, crossing.second, view, effort, 1, only)
    return crossing if path is None else replace(crossing, path=path)


def unsearched(path: Path | None) -> bool:
    """Whether a longer search could settle something that is open."""
    return path is not None and any(item.reason is Reason.BUDGET for item in path.open)
