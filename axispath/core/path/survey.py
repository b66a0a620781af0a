"""Everything that one look at a sheet finds: the paths of its lanes and where they meet."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.landmark import Path, Reason
from axispath.core.path.lanes import (
    USUAL,
    Crossing,
    Effort,
    Range,
    crossed_again,
    crossings,
    interval,
    path_of,
)
from axispath.core.path.quick import quick_path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve


@dataclass(frozen=True)
class Survey:
    """The shown functions, each with its path (None where it is not in the view)."""

    lanes: tuple[tuple[ResolvedLane, Path | None], ...]
    crossings: tuple[Crossing, ...]

    @property
    def paths(self) -> list[Path]:
        """The paths of the lanes, and those of the crossings."""
        paths = [path for _, path in self.lanes if path is not None]
        return [*paths, *(crossing.path for crossing in self.crossings)]

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
    for lane in resolve(document).functions():
        ends = interval(lane, view.left, view.right, only)
        path = None
        if ends is not None:
            with suppress(OutOfTime), limited(patience):
                path = quick_path(lane.floats, ends[0].x, ends[1].x)
        lanes.append((lane, path))
    return Survey(tuple(lanes), ())


def survey(document: Document, effort: Effort = USUAL, only: Range | None = None) -> Survey:
    """Look at all shown functions in the document's view, or on a part of the axis.

    Each lane and each pair of lanes gets what ``effort`` says for one of so many searches.
    """
    view = document.view
    lanes = resolve(document).functions()
    paths = tuple(
        (lane, path_of(lane, view.left, view.right, effort, len(lanes), only)) for lane in lanes
    )
    return Survey(paths, tuple(crossings(lanes, view.left, view.right, effort, only)))


def further(document: Document, found: Survey, effort: Effort, only: Range | None = None) -> Survey:
    """The same with what is still open searched on: these share the whole ``effort``."""
    view = document.view
    each = effort.shared(sum(unsearched(path) for path in found.paths))
    lanes = tuple(
        (lane, path_of(lane, view.left, view.right, each, 1, only) if unsearched(path) else path)
        for lane, path in found.lanes
    )
    return Survey(
        lanes,
        tuple(crossed_again(c, each) if unsearched(c.path) else c for c in found.crossings),
    )


def unsearched(path: Path | None) -> bool:
    """Whether a longer search could settle something that is open."""
    return path is not None and any(item.reason is Reason.BUDGET for item in path.open)
