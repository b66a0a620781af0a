"""Everything that one look at a sheet finds: the paths of its lanes and where they meet."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.path.landmark import Path
from axispath.core.path.lanes import USUAL, Crossing, Effort, Range, crossings, interval, path_of
from axispath.core.path.quick import quick_path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve


@dataclass(frozen=True)
class Survey:
    """The shown functions, each with its path (None where it is not in the view)."""

    lanes: tuple[tuple[ResolvedLane, Path | None], ...]
    crossings: tuple[Crossing, ...]

    @property
    def complete(self) -> bool:
        """Whether nothing was left open."""
        paths = [path for _, path in self.lanes if path is not None]
        return all(path.complete for path in [*paths, *(c.path for c in self.crossings)])


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
    """Look at all shown functions in the document's view, or on a part of the axis."""
    view = document.view
    lanes = resolve(document).functions()
    paths = tuple(
        (lane, path_of(lane, view.left, view.right, effort, len(lanes), only)) for lane in lanes
    )
    return Survey(paths, tuple(crossings(lanes, view.left, view.right, effort, only)))
