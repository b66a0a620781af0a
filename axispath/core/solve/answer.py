"""All solutions of a question in an interval, or on the whole line."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from axispath.core.arithmetic.interval import End
from axispath.core.memory import Memory
from axispath.core.path.lanes import Effort, within_overtime
from axispath.core.search.landmark import Cell, Kind, Landmark, Open, Reason
from axispath.core.search.line import Look, Miss, look, nearest
from axispath.core.solve.question import Question
from axispath.core.solve.sets import Interval, common, united

MOST = 1000  # solutions that are listed
THOROUGH = Effort(evaluations=20_000)
REMEMBERED = 256
_answers: Memory[Answer] = Memory(REMEMBERED)
KEPT = {"<": (-1,), "<=": (-1, 0), ">": (1,), ">=": (1, 0), "=": (0,)}


@dataclass(frozen=True, slots=True)
class Solution:
    """One solution, the height of the sides there, and how far apart they are in floats."""

    mark: Landmark
    y: float
    residual: float


@dataclass(frozen=True, slots=True)
class Answer:
    """What was found from ``low`` to ``high``, which may be infinite.

    ``always`` are stretches on which the sides are the same, and ``everywhere`` tells that they
    are so wherever both are defined; ``solved`` is the solution set of an inequality. Outside
    ``open`` nothing is missing.
    """

    low: float
    high: float
    solutions: tuple[Solution, ...]
    always: tuple[Interval, ...]
    open: tuple[Open, ...]
    defined: bool
    everywhere: bool
    solved: tuple[Interval, ...] | None
    nearest: Miss | None
    more: bool

    @property
    def complete(self) -> bool:
        """Whether there are no solutions but these, for certain."""
        return not self.open and not self.more

    @property
    def endless(self) -> bool:
        """Whether all that is open are solutions that follow one after the other."""
        return bool(self.open) and all(item.reason is Reason.MANY for item in self.open)

    @property
    def unsearched(self) -> bool:
        """Whether a longer search could settle something that is open."""
        return any(item.reason is Reason.BUDGET for item in self.open)


def answer(
    question: Question, low: End | None, high: End | None, effort: Effort = THOROUGH
) -> Answer:
    """Solve between ``low`` and ``high``; None is infinity.

    A search that is broken off, far beyond its effort, leaves everything open.
    """
    ends = tuple(end.key if end is not None else None for end in (low, high))
    asked = (question.sides, question.comparison.signs, question.unit, ends)
    key = (*asked, effort.evaluations, effort.seconds)
    known = _answers.get(key)
    if known is not None:
        return known
    found, own = within_overtime(
        lambda: _answer(question, low, high, effort), effort.seconds, effort.clock
    )
    if found is None:
        found = _nothing_found(question, low, high)
    if own:
        _answers.keep(key, found)
    return found


def _nothing_found(question: Question, low: End | None, high: End | None) -> Answer:
    start, stop = -math.inf if low is None else low.x, math.inf if high is None else high.x
    everything = (Open(start, stop, Reason.BUDGET),)
    solved = None if question.is_equation else ()
    return Answer(start, stop, (), (), everything, True, False, solved, None, False)


def _answer(question: Question, low: End | None, high: End | None, effort: Effort) -> Answer:
    budget = effort.budget(1)
    count = len(question.differences)
    looks = [look(question.difference(k), low, high, budget.part(count - k)) for k in range(count)]
    always = tuple(part for part in _kept(looks[0].cells, "=") if part.low < part.high)
    marks = [(m, k) for k, found in enumerate(looks) for m in _alone(found, always)]
    marks.sort(key=lambda item: item[0].x)
    cells = [cell for found in looks for cell in found.cells]
    opened = tuple(item for found in looks for item in found.open)
    solved = None
    if not question.is_equation:
        solved = _kept(looks[0].cells, question.comparison.signs[0])
        for found, sign in zip(looks[1:], question.comparison.signs[1:], strict=True):
            solved = common(solved, _kept(found.cells, sign))
    given = Answer(
        -math.inf if low is None else low.x,
        math.inf if high is None else high.x,
        tuple(_solution(question, mark, index) for mark, index in marks[:MOST]),
        always,
        opened,
        bool(opened) or any(cell.sign is not None for cell in cells),
        bool(always) and not opened and all(cell.sign in (0, None) for cell in cells),
        solved,
        None,
        len(marks) > MOST or any(found.more for found in looks),
    )
    none = not given.solutions and not always and given.complete and given.defined
    if question.is_equation and none:
        miss = nearest(question.difference(0), low, high, looks[0], effort.budget(1))
        given = replace(given, nearest=miss)
    return given


def _alone(found: Look, always: tuple[Interval, ...]) -> Iterator[Landmark]:
    """The zeros that are not part of a stretch of them."""
    for mark in found.zeros():
        if not any(part.low <= mark.x <= part.high for part in always):
            yield mark


def _kept(cells: Iterable[Cell], sign: str) -> tuple[Interval, ...]:
    """Where the difference has a sign that an equation or inequality asks for."""
    return united(
        Interval(cell.low, cell.high, cell.low == cell.high, cell.low == cell.high)
        for cell in cells
        if cell.sign in KEPT[sign]
    )


def _solution(question: Question, mark: Landmark, index: int) -> Solution:
    left, right = question.heights(index, mark.x)
    shown = replace(mark, kind=Kind.INTERSECTION, y=left + 0.0)
    return Solution(shown, left + 0.0, left - right)
