"""The difference of two sides along an interval, or along the whole line.

Far out the line is folded in by u = 1/x, so that the search there is bounded too: the expansion
at u = 0 settles what happens towards infinity (germ.py), and what is found beside it tells
how far to look. What lies up to there is then searched in x itself, so that every place carries
the certificate it would carry on an interval.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import cached_property

from axispath.core import catalogue
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.floats import float_value
from axispath.core.arithmetic.folding import folded
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Definition, Program, TooLarge, extended
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.tree import Expression, Name, Number, Quotient
from axispath.core.search.budget import Budget
from axispath.core.search.find import find_path, find_zeros
from axispath.core.search.landmark import Cell, Kind, Landmark, Open, Path, Reason
from axispath.core.search.prepared import prepared
from axispath.core.search.tail import sign_towards

FOLD = 16.8046875  # beyond ±this the line is looked at through u = 1/x
TURNED_FOLD = 966.796875  # the same where x is an angle in degrees: as many turns
STRIDE = 2.0**12  # how much longer each part of the line is than the one before
FARTHER = (1.0, 2.0**30, 2.0**60)  # where to fold, in turn, while what is far out stays open
ENDLESS = 12  # events far out after which an end is no longer expected
MOST_FAR = 60  # events far out that are followed one by one
OPEN_ZERO = replace(End.at(0.0), closed=False, of_domain=True)
_TINY = 1e-300
OUTWARD = "outward distance"


@dataclass(frozen=True)
class Difference:
    """What is to be 0 where two sides are the same, in one letter.

    The letter hides a value of that name in all definitions.
    """

    tree: Expression
    letter: str
    definitions: Mapping[str, Definition]
    unit: AngleUnit

    @cached_property
    def plan(self) -> Program:
        """As a program of the letter. Raises NotComputable."""
        return program(self.tree, (self.letter,), self.definitions, everywhere=True)

    @cached_property
    def fold(self) -> float:
        """From where on the line is folded: after as many turns in either unit of angle."""
        if self.unit is AngleUnit.RADIAN:
            return FOLD
        applied = (step.detail for step in self.plan.steps if step.operation == "apply")
        entries = (catalogue.ENTRIES.get(name) for name in applied)
        angles = any(e is not None and e.angle is catalogue.Angle.ARGUMENT for e in entries)
        return TURNED_FOLD if angles else FOLD

    @cached_property
    def outside(self) -> Program:
        """As a program of u = 1/letter."""
        # The letter may stand in other definitions too, so it is itself a value: 1/u.
        outward = Quotient(Number("1"), Name(OUTWARD))
        definitions = extended(self.definitions, {self.letter: Definition(None, outward)})
        return program(self.tree, (OUTWARD,), definitions, everywhere=True)


@dataclass(frozen=True)
class Look:
    """One difference from left to right: paths of parts that share their ends, and their cells."""

    parts: tuple[Path, ...]
    far: tuple[Cell, ...]
    open: tuple[Open, ...]

    @property
    def cells(self) -> tuple[Cell, ...]:
        """All places and stretches; an end that two parts share is there twice."""
        found = [*self.far, *(cell for part in self.parts for cell in part.cells)]
        return tuple(sorted(found, key=lambda cell: (cell.low, cell.high)))

    def zeros(self) -> list[Landmark]:
        """All zeros from left to right, each once: parts share their ends."""
        marks = [mark for part in self.parts for mark in part.of(Kind.ZERO)]
        marks.sort(key=lambda mark: mark.x)
        found: list[Landmark] = []
        for mark in marks:
            if not found or mark.x > found[-1].x + 4 * (mark.radius + math.ulp(mark.x)):
                found.append(mark)
        return found

    @property
    def more(self) -> bool:
        """Whether there was more than could be listed."""
        return any(part.more for part in self.parts)


@dataclass(frozen=True)
class _Tail:
    """What lies towards one end of the line, beyond ``reach``."""

    reach: float
    cell: Cell | None
    open: Open | None


def look(of: Difference, low: End | None, high: End | None, budget: Budget) -> Look:
    """A difference between two ends; None is infinity."""
    plan, unit = of.plan, of.unit
    tails = [
        _tail(of, side, other, budget.part(4))
        for side, end, other in ((-1, low, high), (1, high, low))
        if end is None
    ]
    edges = _edges(of, low, high, tails)
    parts = []
    for k, (start, stop) in enumerate(itertools.pairwise(edges)):
        share = budget.part(len(edges) - 1 - k)
        granted = share.left
        parts.append(find_zeros(plan, unit, start, stop, share, with_breaks=True))
        budget.left -= granted - share.left
    opened = [tail.open for tail in tails if tail.open]
    return Look(
        tuple(parts),
        tuple(tail.cell for tail in tails if tail.cell),
        tuple(sorted([*opened, *(o for part in parts for o in part.open)], key=lambda o: o.low)),
    )


def _fold(of: Difference, other: End | None) -> float:
    """From where on the line is folded, where its other end is given."""
    return of.fold if other is None else max(of.fold, 2.0 * abs(other.x))


def _tail(of: Difference, side: int, other: End | None, budget: Budget) -> _Tail:
    fold = _fold(of, other)
    outside = folded(of.outside, of.unit)
    with suppress(TooLarge):
        settled = sign_towards(prepared(outside), of.unit, side, 1 / fold)
        if settled is not None:
            sign, width = settled
            return _Tail(1 / width, _outwards(side, 1 / width, sign), None)
    first: _Tail | None = None
    for farther in FARTHER:
        tail = _tail_from(of, side, fold * farther, budget.part(2))
        if tail.open is None:
            return tail
        first = first or tail
        if tail.open.reason is Reason.BUDGET:
            break
    assert first is not None
    return first


def _tail_from(of: Difference, side: int, fold: float, budget: Budget) -> _Tail:
    """The tail beyond a place; what lies before it is left to others."""
    inward = End.at(side / fold)
    ends = (OPEN_ZERO, inward) if side > 0 else (inward, OPEN_ZERO)
    plan = of.outside
    path = find_zeros(plan, of.unit, *ends, budget, with_breaks=True)
    cells = path.cells if side > 0 else tuple(reversed(path.cells))
    stretches = [cell for cell in cells if cell.low < cell.high]
    last = stretches[0] if stretches else None
    events = sum(cell.low == cell.high for cell in cells)
    if last is not None and _near(last, side) == 0.0 and events <= MOST_FAR:
        edge = abs(_far(last, side))
        reach = fold if edge >= 1 / fold else 2.0 / edge
        return _Tail(reach, _outwards(side, reach, last.sign), None)
    places = sorted(abs(cell.low) for cell in cells if cell.low == cell.high)[-MOST_FAR:]
    known = [p for p in places if p * fold < 1]
    stuck = max((max(abs(o.low), abs(o.high)) for o in path.open), default=0.0)
    reach = min(1 / max(stuck, min(known, default=1 / fold), _TINY), fold * STRIDE**2)
    reach = max(reach, fold)
    reason = path.open[0].reason if path.open else Reason.BUDGET
    if events > ENDLESS:
        reason, reach = Reason.MANY, fold
    ends_at = (reach, math.inf) if side > 0 else (-math.inf, -reach)
    return _Tail(reach, None, Open(*ends_at, reason))


def _near(cell: Cell, side: int) -> float:
    return cell.low if side > 0 else cell.high


def _far(cell: Cell, side: int) -> float:
    return cell.high if side > 0 else cell.low


def _outwards(side: int, reach: float, sign: int | None) -> Cell:
    return Cell(reach, math.inf, sign) if side > 0 else Cell(-math.inf, -reach, sign)


def _edges(of: Difference, low: End | None, high: End | None, tails: list[_Tail]) -> list[End]:
    """The ends of the parts, each farther out longer than the one before."""
    reaches = iter(tail.reach for tail in tails)
    left = (
        [End.at(-x) for x in reversed(list(_strides(_fold(of, high), next(reaches))))]
        if (low is None)
        else [low]
    )
    right = [End.at(x) for x in _strides(_fold(of, low), next(reaches))] if high is None else [high]
    return [*left, *right]


def _strides(start: float, reach: float) -> Iterator[float]:
    place = start
    while place < reach:
        yield place
        place *= STRIDE
    yield max(reach, start)


@dataclass(frozen=True, slots=True)
class Miss:
    """Where two sides that never meet come closest, and how close.

    ``x`` is ±∞ where that is towards an end of the line. Where it is not ``attained`` they come
    ever closer to being so far apart.
    """

    x: float
    apart: float
    attained: bool = True


def nearest(
    of: Difference, low: End | None, high: End | None, looked: Look, budget: Budget
) -> Miss | None:
    """Where the sides of an equation without solutions come closest; None where not settled."""
    plan, unit = of.plan, of.unit
    seams = {part.low for part in looked.parts[1:]}
    if any(cell.sign is None for cell in looked.cells if cell.low == cell.high in seams):
        return None  # a break just where two parts meet has not been looked at
    misses: list[Miss] = []
    ends = [End.at(part.low) for part in looked.parts] + [End.at(looked.parts[-1].high)]
    ends[0], ends[-1] = low or ends[0], high or ends[-1]
    searches = [(plan, start, stop, False) for start, stop in itertools.pairwise(ends)]
    outside = of.outside
    if low is None:
        searches.append((outside, End.at(1 / ends[0].x), OPEN_ZERO, True))
    if high is None:
        searches.append((outside, OPEN_ZERO, End.at(1 / ends[-1].x), True))
    for k, (searched, start, stop, outwards) in enumerate(searches):
        path = find_path(searched, unit, start, stop, budget.part(len(searches) - k))
        if path.open or path.more:
            return None
        side = math.copysign(1.0, start.x + stop.x)
        for mark in path.landmarks:
            misses += _misses(mark, side if outwards else None)
    misses += [Miss(x, abs(y)) for x, y in _at_ends(looked, of, low, high)]
    return min(misses, key=lambda miss: (miss.apart, not miss.attained), default=None)


def _misses(mark: Landmark, side: float | None) -> Iterator[Miss]:
    x = mark.x
    if side is not None:
        x = 1 / mark.x if mark.x else math.copysign(math.inf, side)
    held = mark.closed and mark.kind is not Kind.HOLE and math.isfinite(x)
    if math.isfinite(mark.y) and (held or mark.kind is Kind.HOLE or not mark.closed):
        yield Miss(x, abs(mark.y), held)
    for limit in (mark.left, mark.right):
        if math.isfinite(limit):
            yield Miss(x, abs(limit), held and limit == mark.y)


def _at_ends(
    looked: Look, of: Difference, low: End | None, high: End | None
) -> Iterator[tuple[float, float]]:
    for end, cell_at in ((low, 0), (high, -1)):
        if end is None or not looked.cells:
            continue
        cell = looked.cells[cell_at]
        if cell.low == cell.high and cell.sign is not None:
            yield cell.low, float_value(of.plan, of.unit, cell.low)
