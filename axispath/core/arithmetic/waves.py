"""What repeats: sums of sines and cosines with their frequencies, and periods of other formulas.

A step of a program is a finite Fourier sum where that is possible (sums and products of sines and
cosines of a t + b), else something that repeats, else something straight, else unknown. Frequencies
are compared exactly: each is a fraction times 1, π or the root of a whole number, and those of
different kinds have no common period (Z. Artstein et al.; G. H. Hardy and E. M. Wright, An
Introduction to the Theory of Numbers, chapter IV: π and such roots are irrational).
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction

from flint import acb, arb, fmpq

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.program import Program, Step
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.memory import remembered

BITS = 200
MOST_TERMS = 160
HIGHEST_POWER = 24
LARGEST_ROOT = 10**6
ROUND = {"sin", "cos"}
TURNING = {"tan", "cot", "sec", "csc"}
NEGLIGIBLE = 1e-40

Measure = tuple[str, int]
"""What a frequency is a fraction of: ("", 1), ("π", 1) or ("√", n) with n free of squares."""
PLAIN: Measure = ("", 1)
NO_RISE = Exact(Fraction(0))


@dataclass(frozen=True)
class Wave:
    """Something that repeats, plus ``rise`` times the parameter.

    ``spectrum`` holds its Fourier coefficients by frequency, with both signs; None where only
    ``base`` is known, of which all frequencies are whole multiples (0 for a constant). Where
    ``measure`` is None parts of different measures were met, so that nothing repeats. ``exact`` is
    the value of a constant.
    """

    measure: Measure | None = PLAIN
    base: Fraction = Fraction(0)
    spectrum: Mapping[Fraction, acb] | None = field(default_factory=dict)
    rise: Exact | None = NO_RISE
    exact: Exact | None = None
    root: tuple[Fraction, int] | None = None  # a constant that is a fraction times a root

    @property
    def constant(self) -> bool:
        """Whether nothing moves."""
        return not self.base and self.straight and self.measure is not None

    @property
    def straight(self) -> bool:
        """Whether nothing but a repetition is in it."""
        return self.rise is not None and self.rise.is_zero


def common(a: Fraction, b: Fraction) -> Fraction:
    """The largest fraction of which both are whole multiples."""
    parts = math.lcm(a.denominator, b.denominator)
    return Fraction(math.gcd(int(a * parts), int(b * parts)), parts)


def _joined(waves: list[Wave], spectrum: Mapping[Fraction, acb] | None) -> Wave:
    """Something made of waves that repeats with all of them."""
    measures = {wave.measure for wave in waves if wave.base or wave.measure is None}
    if len(measures) > 1 or None in measures:
        return Wave(None, Fraction(1), None)
    measure = measures.pop() if measures else PLAIN
    if spectrum is not None and len(spectrum) > MOST_TERMS:
        spectrum = None
    base = Fraction(0)
    if spectrum is None:
        for wave in waves:
            base = common(base, wave.base)
    else:
        spectrum = {f: c for f, c in spectrum.items() if not _nothing(c)}
        for frequency in spectrum:
            base = common(base, abs(frequency))
    return Wave(measure, base, spectrum)


def _nothing(value: acb) -> bool:
    """Whether a coefficient is 0, or so near to it that it is taken for 0."""
    size = abs(value)
    return bool(size.is_zero() or (size.contains(0) and size.rad() < NEGLIGIBLE))


def _times(a: Mapping[Fraction, acb], b: Mapping[Fraction, acb]) -> dict[Fraction, acb] | None:
    if len(a) * len(b) > MOST_TERMS**2:
        return None
    total: dict[Fraction, acb] = {}
    for f, c in a.items():
        for g, d in b.items():
            total[f + g] = total.get(f + g, acb(0)) + c * d
    return total


def _plus(a: Mapping[Fraction, acb], b: Mapping[Fraction, acb], sign: int) -> dict[Fraction, acb]:
    total = dict(a)
    for f, c in b.items():
        total[f] = total.get(f, acb(0)) + sign * c
    return total


class _Reader:
    """Reads the steps of a program one after the other."""

    def __init__(self, unit: AngleUnit) -> None:
        self.unit = unit

    def step(self, step: Step, given: list[Wave | None], exact: Exact | None) -> Wave | None:
        """What a step is; None where nothing is known."""
        known = [wave for wave in given if wave is not None]
        if len(known) < len(given):
            return None
        if all(wave.constant for wave in known):
            return _constant(step, known, exact)
        match step.operation:
            case "add" | "subtract":
                return _sum(known[0], known[1], 1 if step.operation == "add" else -1)
            case "negate":
                return _sum(Wave(spectrum={}, exact=NO_RISE), known[0], -1)
            case "multiply":
                return _product(known[0], known[1])
            case "divide" if known[1].constant:
                return _divided(known[0], known[1])
            case "whole power" if 0 <= step.detail <= HIGHEST_POWER:
                return _power(known[0], step.detail)
            case "apply" if not known[0].straight and len(known) == 1:
                return self._of_straight(step.detail, known[0])
        if all(wave.straight for wave in known):
            return _joined(known, None)
        return None

    def _of_straight(self, name: str, inner: Wave) -> Wave | None:
        """sin(a t + b) and its like."""
        if inner.base or inner.rise is None or name not in ROUND | TURNING:
            return None
        found = _measured(inner)
        if found is None:
            return None
        measure, frequency = found
        if name in TURNING:
            # Tangent and cotangent have half the period of the sine.
            double = 2 if name in ("tan", "cot") else 1
            return Wave(measure, abs(frequency) * double, None)
        phase = inner.spectrum.get(Fraction(0), acb(0)) if inner.spectrum is not None else None
        if phase is None:
            return Wave(measure, abs(frequency), None)
        angle = phase * acb(arb.pi() / 180) if self.unit is AngleUnit.DEGREE else phase
        turned = (acb(0, 1) * angle).exp() / 2
        if name == "sin":
            turned = turned * acb(0, -1)
        spectrum = {frequency: turned, -frequency: turned.conjugate()}
        return Wave(measure, abs(frequency), spectrum)


def _constant(step: Step, given: list[Wave], exact: Exact | None) -> Wave | None:
    """A value; its ball is worked out where the exact value is not known."""
    if exact is not None:
        return Wave(spectrum={Fraction(0): acb(exact.ball)}, exact=exact)
    root = _root(step, given)
    if root is not None:
        (share, inside) = root
        ball = arb(fmpq(share.numerator, share.denominator)) * arb(inside).sqrt()
        return Wave(spectrum={Fraction(0): acb(ball)}, root=root)
    return Wave(spectrum=None)


def _root(step: Step, given: list[Wave]) -> tuple[Fraction, int] | None:
    """A fraction times the root of a whole number, as √2, 3√5/2 or 1/√3."""
    shares = [wave.root or _as_root(wave.exact) for wave in given]
    match step.operation, shares:
        case "apply", [(share, 1)] if step.detail == "sqrt" and share > 0:
            return _without_squares(share)
        case "negate", [(share, inside)]:
            return -share, inside
        case "multiply", [(a, n), (b, m)]:
            found = _without_squares(Fraction(n * m))
            return None if found is None else (a * b * found[0], found[1])
        case "divide", [(a, n), (b, m)] if b:
            found = _without_squares(Fraction(n * m))
            return None if found is None else (a / (b * m) * found[0], found[1])
    return None


def _as_root(value: Exact | None) -> tuple[Fraction, int] | None:
    return None if value is None or value.turns else (value.rational, 1)


def _without_squares(square: Fraction) -> tuple[Fraction, int] | None:
    """√square as a fraction times the root of a whole number without square factors."""
    whole, share = square.numerator * square.denominator, Fraction(1, square.denominator)
    if whole > LARGEST_ROOT:
        return None
    for p in range(2, math.isqrt(whole) + 1):
        while whole % (p * p) == 0:
            whole, share = whole // (p * p), share * p
    return share, whole


def _sum(one: Wave, other: Wave, sign: int) -> Wave | None:
    if one.rise is None or other.rise is None:
        return None
    rise = Exact(
        one.rise.rational + sign * other.rise.rational, one.rise.turns + sign * other.rise.turns
    )
    spectrum = None
    if one.spectrum is not None and other.spectrum is not None:
        spectrum = _plus(one.spectrum, other.spectrum, sign)
    found = _joined([one, other], spectrum)
    root = one.root if one.root is not None else other.root
    return replace(found, rise=rise, root=root if not one.straight or not other.straight else None)


def _product(one: Wave, other: Wave) -> Wave | None:
    if one.constant and not other.constant:
        one, other = other, one
    spectrum = None
    if one.spectrum is not None and other.spectrum is not None:
        spectrum = _times(one.spectrum, other.spectrum)
    if one.straight and other.straight:
        return _joined([one, other], spectrum)
    if not other.constant:
        return None
    if other.exact is not None:
        rise = _scaled(one.rise, other.exact)
        return None if rise is None else replace(_joined([one, other], spectrum), rise=rise)
    if other.root is not None and one.rise is not None and not one.rise.turns:
        # √2 t: the rise is kept as a fraction, and the root beside it.
        rise = Exact(one.rise.rational * other.root[0])
        found = _joined([one, other], spectrum)
        return replace(found, rise=rise, root=(Fraction(1), other.root[1]))
    return None


def _scaled(value: Exact | None, factor: Exact) -> Exact | None:
    if value is None or (value.turns and factor.turns):
        return None
    a, b = value.rational * factor.rational, value.turns * factor.rational
    return Exact(a, b + value.rational * factor.turns)


def _divided(one: Wave, other: Wave) -> Wave | None:
    if other.exact is not None and not other.exact.turns and other.exact.rational:
        share = 1 / other.exact.rational
        factor = Wave(
            spectrum={Fraction(0): acb(fmpq(share.numerator, share.denominator))},
            exact=Exact(share),
        )
        return _product(one, factor)
    return _joined([one, other], None) if one.straight else None


def _power(wave: Wave, exponent: int) -> Wave | None:
    if not wave.straight:
        return None
    spectrum: Mapping[Fraction, acb] | None = {Fraction(0): acb(1)}
    for _ in range(exponent):
        if spectrum is None or wave.spectrum is None:
            return _joined([wave], None)
        spectrum = _times(spectrum, wave.spectrum)
    return _joined([wave], spectrum)


def _measured(inner: Wave) -> tuple[Measure, Fraction] | None:
    """The frequency a of a t + b as a fraction of a measure."""
    rise = inner.rise
    assert rise is not None
    if inner.root is not None and not rise.turns:
        return ("√", inner.root[1]) if inner.root[1] > 1 else PLAIN, rise.rational
    if rise.turns and rise.rational:
        return None
    return (("π", 1), rise.turns) if rise.turns else (PLAIN, rise.rational)


@remembered(512)
def wave_of(plan: Program, unit: AngleUnit) -> Wave | None:
    """What a program of one input is as a wave; None where that is not known."""
    reader = _Reader(unit)
    found: list[Wave | None] = [Wave(spectrum={}, rise=Exact(Fraction(1)))]
    with precision(BITS):
        values = _values(plan, unit)
        for step, exact in zip(plan.steps[1:], values[1:], strict=True):
            found.append(reader.step(step, [found[i] for i in step.operands], exact))
    return found[plan.result]


def _values(plan: Program, unit: AngleUnit) -> list[Exact | None]:
    """The exact values of the constant steps."""
    varying = {0}
    for index, step in enumerate(plan.steps):
        if not varying.isdisjoint(step.operands):
            varying.add(index)
    # At a place that no formula knows, what varies is not mistaken for a constant.
    found = exact_registers(plan, unit, Exact(Fraction(0)))
    return [None if index in varying else value for index, value in enumerate(found)]


def full_turn(measure: Measure, base: Fraction, unit: AngleUnit) -> tuple[arb, Exact | None]:
    """The period that belongs to a base frequency: a ball at the working precision, and exactly."""
    turn = 360 / base if unit is AngleUnit.DEGREE else 2 / base
    ball = arb(fmpq(turn.numerator, turn.denominator))
    exact: Exact | None = None
    match measure[0], unit:
        case "", AngleUnit.RADIAN:
            ball, exact = ball * arb.pi(), Exact(Fraction(0), turn)
        case "", _:
            exact = Exact(turn)
        case "π", AngleUnit.RADIAN:
            exact = Exact(turn)
        case "π", _:
            ball = ball / arb.pi()
        case "√", AngleUnit.RADIAN:
            ball = ball * arb.pi() / arb(measure[1]).sqrt()
        case _:
            ball = ball / arb(measure[1]).sqrt()
    return ball, exact
