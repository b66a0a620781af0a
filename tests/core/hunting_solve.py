"""Random equations and inequalities, and what a dense scan sees of them that Solve does not say.

The scan runs in floats; whatever it sees is looked at again with enclosures at 300 bits, so that
rounding is not taken for a fault.
"""

import math
from dataclasses import dataclass, field

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.interval import End
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.path.lanes import Effort
from axispath.core.search.landmark import Certainty
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.answer import answer
from axispath.core.solve.question import ask
from tests.core.hunting import random_line

SIGNS = ("=", "=", "<", "<=", ">", ">=")
TRUE = {"<": (-1,), "<=": (-1, 0), ">": (1,), ">=": (1, 0), "=": (0,)}
ENDS = ((-3.1, 3.3), (-3.0, 3.0), (0.0, 2.0), (-1.0, 1.0), (-10.0, 10.0), (1e-6, 1e-3))
LOOKED_AT = 30  # suspicious places of one question
SMALL = 1e-60
COARSE = 16.0  # borders that are whole sixteenths are looked at themselves


def random_question(chance):
    """An equation or inequality, and where it is asked about: None for the whole line."""
    left = random_line(chance)
    right = random_line(chance, chance.choice([0, 0, 1]))
    ends = None if chance.random() < 0.3 else chance.choice(ENDS)
    return f"{left} {chance.choice(SIGNS)} {right}", ends


@dataclass
class Asked:
    """What was found wrong, and whether the answer left anything open."""

    open: bool
    faults: list = field(default_factory=list)


def disagreements(text, ends, samples, budget=3000):
    """Compare an answer with a scan; None for a question that is refused."""
    try:
        question = ask(Document(), text, "")
    except EditRefused:
        return None
    low, high = (None, None) if ends is None else (End.at(ends[0]), End.at(ends[1]))
    found = answer(question, low, high, Effort(evaluations=budget))
    places = _places(found, ends, samples)
    scan = _Scan(question, places)
    asked = Asked(not found.complete)
    if question.is_equation:
        asked.faults += _missed(found, scan)
        asked.faults += _touched(found, scan)
        asked.faults += _invented(found, scan)
        asked.faults += _same(found, scan)
    else:
        asked.faults += _members(found, scan, TRUE[question.comparison.signs[0]])
    asked.faults += _undefined(found, scan)
    return asked


def _places(found, ends, samples):
    """Where to look: densely, at simple numbers, and on both sides of every border."""
    if ends is None:
        far = np.geomspace(1e-6, 1e6, samples // 4)
        places = [np.linspace(-20, 20, samples // 2), far, -far]
    else:
        places = [np.linspace(*ends, samples)]
    places.append(np.arange(-40, 41) / 4)
    borders = [mark.mark.x for mark in found.solutions]
    for part in (*(found.solved or ()), *found.always):
        borders += [part.low, part.high]
    beside = []
    for border in {b for b in borders if math.isfinite(b)}:
        near = 1e-9 * max(abs(border), 1e-9)
        beside += [border - near, border + near]
        if float(border * COARSE).is_integer():
            beside.append(border)
    x = np.unique(np.concatenate([*places, np.array(beside, dtype=float)]))
    low, high = (-math.inf, math.inf) if ends is None else ends
    return x[(x >= low) & (x <= high)]


class _Scan:
    """The difference of the two sides at many places, and at one place for certain."""

    def __init__(self, question, x):
        self.x = x
        plan = question.differences[0]
        with np.errstate(all="ignore"):
            self.y = float_function(plan, question.unit)(x)
        self.function = BallFunction(plan, question.unit)

    def value(self, x):
        """The enclosure at a number, None where there is no value."""
        with precision(300):
            try:
                return self.function.value(arb(float(x)) if not isinstance(x, arb) else x)
            except OutsideDomain:
                return None

    def sign(self, x):
        """−1, 0 or 1; None where there is no value, nan where it cannot be told."""
        value = self.value(x)
        if value is None:
            return None
        if not value.is_finite():
            return math.nan
        if value > 0 or value < 0:
            return 1 if value > 0 else -1
        return 0 if value.is_exact() else math.nan


def _member(solved, x):
    for part in solved:
        if part.low < x < part.high:
            return True
        if (x == part.low and part.low_closed) or (x == part.high and part.high_closed):
            return True
    return False


def _members(found, scan, true):
    """Places that are in the set and should not be, or the other way round."""
    inside = np.zeros(scan.x.shape, dtype=bool)
    for part in found.solved:
        inside |= (scan.x > part.low) & (scan.x < part.high)
        for end, closed in ((part.low, part.low_closed), (part.high, part.high_closed)):
            if closed:
                inside |= scan.x == end
    for item in found.open:
        inside[(scan.x >= item.low) & (scan.x <= item.high)] = False
    holds = np.isin(np.sign(scan.y), true)
    wrong = holds != inside
    for item in found.open:
        wrong &= (scan.x < item.low) | (scan.x > item.high)
    for x in scan.x[wrong][:LOOKED_AT]:
        sign = scan.sign(x)
        if sign is not None and math.isnan(sign):
            continue
        if (sign in true) != _member(found.solved, x):
            return [f"sign {sign} at {x!r}, set {found.solved}"]
    return []


def _missed(found, scan):
    """Changes of sign at which the difference passes 0 and no solution is listed."""
    solutions = np.array([s.mark.x for s in found.solutions])
    steps = np.flatnonzero(np.sign(scan.y[:-1]) * np.sign(scan.y[1:]) < 0)
    for k in steps[:LOOKED_AT]:
        a, b = float(scan.x[k]), float(scan.x[k + 1])
        if any(o.low <= b and o.high >= a for o in found.open) or found.more:
            continue
        if ((solutions >= a) & (solutions <= b)).any():
            continue
        if any(part.low <= b and part.high >= a for part in found.always):
            continue
        if _passes_zero(scan, a, b):
            return [f"no solution between {a!r} and {b!r}"]
    return []


def _passes_zero(scan, a, b):
    """Whether the difference is continuous where its sign changes: its values get small there."""
    low, high = arb(a), arb(b)
    with precision(300):
        first = scan.sign(low)
        if first not in (-1, 1) or scan.sign(high) != -first:
            return False
        for _ in range(280):
            middle = ((low + high) / 2).mid()
            sign = scan.sign(middle)
            if sign not in (-1, 1):
                return False
            low, high = (middle, high) if sign == first else (low, middle)
        ends = [scan.value(low), scan.value(high)]
        return all(value is not None and abs(value) < 1e-30 for value in ends)


def _touched(found, scan):
    """Lowest places of the distance at which it is 0 and no solution is listed."""
    distance = np.abs(scan.y)
    with np.errstate(invalid="ignore"):
        lower = (distance[1:-1] <= distance[:-2]) & (distance[1:-1] <= distance[2:])
    near = np.flatnonzero(lower & (distance[1:-1] < 1e-3)) + 1
    for k in near[:LOOKED_AT]:
        a, b = float(scan.x[k - 1]), float(scan.x[k + 1])
        if any(o.low <= b and o.high >= a for o in found.open) or found.more:
            continue
        wide = b - a
        if any(a - wide <= s.mark.x <= b + wide for s in found.solutions):
            continue
        if any(part.low <= b and part.high >= a for part in found.always):
            continue
        if _lowest(scan, a, b) < SMALL:
            return [f"no solution where the sides touch between {a!r} and {b!r}"]
    return []


def _lowest(scan, a, b):
    """The least distance between two numbers, by golden sections at 300 bits.

    Infinite where it is not attained inside: at a jump the distance is small on one side only.
    """
    golden = (math.sqrt(5) - 1) / 2
    low, high = arb(a), arb(b)

    def distance(x):
        value = scan.value(x)
        return abs(value).mid() if value is not None and value.is_finite() else None

    with precision(300):
        for _ in range(400):
            width = high - low
            one, other = (high - golden * width).mid(), (low + golden * width).mid()
            first, second = distance(one), distance(other)
            if first is None or second is None:
                return math.inf
            low, high = (low, other) if first < second else (one, high)
        middle = ((low + high) / 2).mid()
        inside = (b - a) * 1e-9
        if middle - a < inside or b - middle < inside:
            return math.inf
        beside = [distance((middle + step).mid()) for step in (-1e-20, 1e-20)]
        found = distance(middle)
    if found is None or any(d is None or d > 1e-6 for d in beside):
        return math.inf
    return float(found)


def _invented(found, scan):
    """Solutions at which the sides neither meet nor change places."""
    for solution in found.solutions:
        x = solution.mark.x
        value = scan.value(x)
        if value is not None and (not value.is_finite() or value.contains(0)):
            continue
        step = 4 * math.ulp(x)
        signs = [scan.sign(x - step), scan.sign(x + step)]
        if None not in signs and signs[0] * signs[1] < 0:
            continue
        # A tangent zero at a number that is no float: the distance there is its curvature.
        if value is not None and abs(value) < 1e-24 * max(1.0, x * x):
            continue
        # Nor a number at which a jump has its value.
        if solution.mark.certainty is not Certainty.PROVEN:
            near = [scan.value(place) for place in (x - step, x, x + step)]
            if any(v is not None and abs(v) < 1e-12 for v in near):
                continue
        # An isolated place of the domain, or an end of it, need not be a float either.
        if None in signs and (value is None or abs(value) < 1e-6):
            continue
        return [f"no solution at {x!r}: {value} ({solution.mark.certainty})"]
    return []


def _same(found, scan):
    for part in found.always:
        inside = (scan.x > part.low) & (scan.x < part.high) & (np.abs(scan.y) > 1e-9)
        for x in scan.x[inside][:LOOKED_AT]:
            if scan.sign(x) in (-1, 1):
                return [f"the sides differ at {x!r} in {part}"]
    return []


def _undefined(found, scan):
    if found.defined:
        return []
    for x in scan.x[np.isfinite(scan.y)][:LOOKED_AT]:
        value = scan.value(x)
        if value is not None and value.is_finite():
            return [f"defined at {x!r}"]
    return []
