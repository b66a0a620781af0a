"""What is found of a sheet in several states of what is turned: proven where that is quick."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator
from contextlib import suppress
from functools import partial

from axispath.core.arithmetic.boxed import box_function
from axispath.core.arithmetic.boxes import Boxes
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.arithmetic.program import NotComputable, extended
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import (
    MOST_CROSSED,
    Crossing,
    Effort,
    Range,
    common,
    crossing_path,
    difference_of,
    interval,
    remembered,
)
from axispath.core.path.proved import Heights, Index, heights_of, is_smooth, proved
from axispath.core.path.survey import Survey, lane_path, seen
from axispath.core.search.find import find_path
from axispath.core.search.landmark import Kind, Path
from axispath.core.sheet.document import View
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.states import Moved, Rule, States

Find = Callable[[int], Path | None]


class Moving:
    """A look at a sheet in several states."""

    def __init__(
        self,
        states: States,
        view: View,
        effort: Effort,
        quick: Patience,
        only: Range | None = None,
    ) -> None:
        """``effort`` is for one search, ``quick`` for one scan."""
        self.states = states
        self.view = view
        self.effort = effort
        self.quick = quick
        self.only = only

    def surveys(self) -> Iterator[Survey]:
        """What there is in each state, one after the other.

        Functions and their intersections are proven: where they cannot break in all states at
        once, elsewhere by a search in each. Other kinds are scanned in floating point.
        """
        lanes = self.states.sheet.shown(SEARCHED)
        finds = [(lane, self._finder(lane)) for lane in lanes]
        functions = [lane for lane in lanes[:MOST_CROSSED] if lane.kind.key == "function"]
        meets = [
            (first, second, find)
            for first, second in itertools.combinations(functions, 2)
            if (find := self._meeting(first, second)) is not None
        ]
        for k in range(len(self.states)):
            paths = tuple((lane, find(k)) for lane, find in finds)
            met = ((first, second, find(k)) for first, second, find in meets)
            crossings = tuple(Crossing(a, b, path) for a, b, path in met if path is not None)
            yield seen(self.states.document, Survey(paths, crossings))

    def _finder(self, lane: ResolvedLane) -> Find:
        """How the landmarks of a lane are found in a state."""
        view = self.view
        if self.states.same(lane):
            return partial(self._still, lane)
        moved = self.states.moved(lane)
        if moved is None:
            return partial(self._scanned, lane)
        ends = interval(lane, view.left, view.right, self.only)
        if ends is None:
            return lambda k: None
        if is_smooth(moved, ends) and (heights := heights_of(moved)) is not None:
            found = proved(moved, ends, (0, 1, 2), heights)
            if found is not None:
                return found.__getitem__
        return partial(self._searched, moved, ends)

    def _still(self, lane: ResolvedLane, k: int) -> Path | None:
        """What a search finds of a lane that is the same in all states."""
        patience = None if lane.kind.key == "function" else self.quick
        with suppress(NotComputable, OutOfTime), limited(patience):
            return lane_path(lane, self.view, self.effort, 1, self.only)
        return self._scanned(lane, k)

    def _searched(self, moved: Moved, ends: Range, k: int) -> Path:
        """What a search finds in a state."""
        plan, budget = moved.at(k), self.effort.budget(1)
        search = partial(find_path, plan, moved.unit, *ends, budget)
        return remembered(("path", plan, moved.unit), ends, budget, search)

    def _scanned(self, lane: ResolvedLane, k: int) -> Path | None:
        """What a sampling sees of a lane in a state."""
        now = self.states.sheet_in(k).lane(lane.lane.id)
        if now is None or not now.can(SEARCHED):
            return None
        with suppress(OutOfTime), limited(self.quick):
            return SEARCHED[now.kind.key].quick(now, self.view, self.only)
        return None

    def _meeting(self, first: ResolvedLane, second: ResolvedLane) -> Find | None:
        """How the intersections of two functions are found in a state; None where they are not."""
        states, view = self.states, self.view
        same = [states.same(lane) for lane in (first, second)]
        if not all(_has_program(lane) for lane in (first, second)):
            return None
        if all(same):
            budget = self.effort.budget(1)
            across = view.left, view.right
            return lambda k: crossing_path(first, second, *across, budget, self.only)
        apart = _apart(states, first, second)
        ends = common(first, second, view.left, view.right, self.only)
        heights = _heights(states, first if same[0] else second)
        if apart is None or heights is None or ends is None or not ends[0].x < ends[1].x:
            return None
        found = proved(apart, ends, (0,), heights, Kind.INTERSECTION)
        return None if found is None else found.__getitem__


def _has_program(lane: ResolvedLane) -> bool:
    """Whether a function can be computed at all."""
    with suppress(NotComputable):
        return bool(lane.program.steps)
    return False


def _heights(states: States, lane: ResolvedLane) -> Heights | None:
    """The values of a function in a state, on boxes."""
    if not states.same(lane):
        moved = states.moved(lane)
        return None if moved is None else heights_of(moved)
    boxed = box_function(lane.program, lane.unit)

    def heights(x: Boxes, row: Index) -> Boxes:
        return boxed(x)

    return heights


def _apart(states: States, first: ResolvedLane, second: ResolvedLane) -> Moved | None:
    """The difference of two functions as it moves."""
    names = [states.names_in(lane) for lane in (first, second)]
    still = [states.same(lane) or states.moved(lane) is not None for lane in (first, second)]
    if None in names or not all(still):
        return None
    body, sides = difference_of(first, second)
    needed = tuple(sorted({name for one in names for name in one or ()}))
    definitions = extended(first.definitions, sides)
    return states.moved_rule(Rule(body, "x", definitions, first.unit, needed))
