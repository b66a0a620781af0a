"""Random functions, and what a dense scan sees of them that their path does not say."""

from dataclasses import dataclass, field

import numpy as np
from flint import arb

from axispath.core.arithmetic.balls import BallFunction, precision
from axispath.core.arithmetic.floats import float_function
from axispath.core.arithmetic.program import NotComputable
from axispath.core.catalogue.balls import OutsideDomain
from axispath.core.search.landmark import Kind
from tests.core.helpers import RADIAN, path, plan

ONE = (
    *("sin", "cos", "exp", "arctan", "abs", "floor", "ln", "sqrt", "sinh", "sign", "tan"),
    *("cbrt", "round", "ceil", "tanh", "arcsin", "sec"),
)
NOISE = 1e-9


def random_line(chance, depth=None):
    """A formula from the catalogue, with breaks more often than not."""
    depth = chance.randint(1, 3) if depth is None else depth
    if depth == 0:
        return chance.choice(["x", "x", "x", str(chance.randint(-4, 5)), "0.5", "π"])
    kind = chance.random()

    def part(less=1):
        return random_line(chance, max(depth - less, 0))

    if kind < 0.45:
        other = random_line(chance, chance.randint(0, depth - 1))
        return f"({part()}){chance.choice('+-*/')}({other})"
    if kind < 0.82:
        return f"{chance.choice(ONE)}({part()})"
    if kind < 0.9:
        return f"({part()})^{chance.choice(['2', '3', '-1', '(1/3)', '(2/3)', '0.5'])}"
    if kind < 0.95:
        return f"{chance.choice(['max', 'min', 'mod'])}({part()}, {part()})"
    return f"({part()} if {part(3)} {chance.choice(['<', '<='])} {part(3)}, {part()} otherwise)"


@dataclass
class Looked:
    """What was found wrong, and whether the path left anything open."""

    open: bool
    faults: list = field(default_factory=list)


def disagreements(line, low, high, samples, budget=3000):
    """Compare a path with a scan; None for a formula that is refused."""
    try:
        program = plan(line)
    except NotComputable:
        return None
    found = path(line, low, high, budget=budget)
    with np.errstate(all="ignore"):
        values = float_function(program, RADIAN)
        x = np.linspace(low, high, samples)
        y = values(x)
    looked = Looked(not found.complete)
    sure = _Sure(program)
    looked.faults += _missed(found, x, y, sure)
    looked.faults += _spans(found, x, y, sure)
    looked.faults += _undefined(found, x, y, sure)
    looked.faults += _turning(found, x, y, sure)
    looked.faults += _invented(found, values, sure)
    return looked


class _Sure:
    """Signs at single places by enclosures, so that rounding is not taken for a fault."""

    def __init__(self, program):
        self.function = BallFunction(program, RADIAN)

    def value(self, x):
        with precision(300):
            try:
                return self.function.value(arb(float(x)))
            except OutsideDomain:
                return None

    def sign(self, x):
        value = self.value(x)
        if value is None or not value.is_finite():
            return None
        return 1 if value > 0 else -1 if value < 0 else 0


def _covered(stretches, low, high):
    return any(s.low <= high and s.high >= low for s in stretches)


def _breaks(found, low, high):
    kinds = (Kind.POLE, Kind.JUMP, Kind.HOLE, Kind.END, Kind.KINK)
    return any(low <= mark.x <= high for mark in found.of(*kinds))


def _missed(found, x, y, sure):
    zeros = np.array([m.x for m in found.of(Kind.ZERO)])
    steps = np.flatnonzero(np.sign(y[:-1]) * np.sign(y[1:]) < 0)[:400]
    for k in steps:
        a, b = x[k], x[k + 1]
        if _covered(found.open, a, b) or _covered(found.undefined, a, b) or _breaks(found, a, b):
            continue
        if ((zeros >= a) & (zeros <= b)).sum() % 2 == 0 and (sure.sign(a) or 0) * (
            sure.sign(b) or 0
        ) < 0:
            return [f"no zero between {a!r} and {b!r}"]
    return []


def _spans(found, x, y, sure):
    for span in found.spans:
        inside = (x > span.low) & (x < span.high)
        wrong = inside & np.isfinite(y) & (np.sign(y) * (span.sign or 2) < 0)
        for place in x[wrong][:20]:
            if (sure.sign(place) or span.sign) != span.sign:
                return [f"wrong sign at {place!r} in {span}"]
        off = x[inside & (np.abs(y) > NOISE)] if span.sign == 0 else []
        if any(sure.sign(place) for place in off[:20]):
            return [f"not zero throughout {span}"]
        for place in x[inside & np.isnan(y)][:20]:
            if sure.value(place) is None:
                return [f"undefined at {place!r} in {span}"]
    return []


def _undefined(found, x, y, sure):
    for gap in found.undefined:
        inside = x[(x > gap.low) & (x < gap.high) & np.isfinite(y)]
        for place in inside[:20]:
            value = sure.value(place)
            if value is not None and value.is_finite():
                return [f"defined at {place!r} in {gap}"]
    return []


def _turning(found, x, y, sure):
    """Rises where the path says falls, between neighbouring samples of one span."""
    for span in found.spans:
        inside = np.flatnonzero((x > span.low) & (x < span.high))
        if len(inside) < 2 or not np.isfinite(y[inside]).all():
            continue
        change = np.diff(y[inside])
        size = np.maximum(np.abs(y[inside][1:]), np.abs(y[inside][:-1]))
        against = np.flatnonzero(change * (span.direction or 2) < -NOISE * (1 + size))
        for k in against[:5]:
            a, b = sure.value(x[inside[k]]), sure.value(x[inside[k] + 1])
            if a is None or b is None:
                continue
            if (b - a) * span.direction < 0:
                return [f"turns at {x[inside[k]]!r} in {span}"]
    return []


def _invented(found, values, sure):
    faults = []
    for mark in found.of(Kind.ZERO):
        if _breaks(found, mark.x - 1e-7, mark.x + 1e-7):
            continue  # floats beside a jump are on one side of it
        with np.errstate(all="ignore"):
            at = np.array([mark.x, mark.x - 1e-7, mark.x + 1e-7])
            y = values(np.clip(at, found.low, found.high))
        size = np.nanmax(np.abs(y)) if np.isfinite(y).any() else 0.0
        step = 4 * np.spacing(abs(mark.x))
        crosses = (sure.sign(mark.x - step) or 0) * (sure.sign(mark.x + step) or 0) < 0
        # A root next to its zero is steep, so that a float there need not be small; an enclosure at
        # 300 bits then is.
        exact = sure.value(mark.x)
        small = exact is not None and exact.contains(0) and exact.rad() < 1e-25
        if abs(y[0]) > 1e-6 * (1 + size) and not crosses and not small:
            faults.append(f"no zero at {mark.x!r}: {y[0]!r} ({mark.certainty})")
    return faults
