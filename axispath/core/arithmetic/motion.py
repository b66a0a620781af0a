"""How a point moves whose coordinates are two programs: whether it comes back, and when."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from flint import acb, arb, fmpq

from axispath.core.arithmetic.balls import precision
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.arithmetic.waves import BITS, Measure, Wave, common, full_turn, wave_of
from axispath.core.memory import remembered

MOST_MIRRORS = 400


@dataclass(frozen=True)
class Motion:
    """What is known of a motion (x, y).

    ``period`` is one after which all repeats; the shortest where ``least``. ``never`` is why it
    does not repeat, as the end of a sentence; empty where that is not known. ``mirror`` is a place
    about which the point goes back the way it came, as far as 50 digits tell.
    """

    period: End | None = None
    least: bool = False
    never: str = ""
    mirror: arb | None = None


UNKNOWN = Motion()


@remembered(256)
def motion_of(x: Program, y: Program, unit: AngleUnit) -> Motion:
    """How the point (x, y) moves."""
    waves = wave_of(x, unit), wave_of(y, unit)
    if any(wave is not None and wave.rise is not None and not wave.straight for wave in waves):
        if all(wave is not None for wave in waves):
            return Motion(never="it goes on and on, and does not come back")
        return UNKNOWN
    known = [wave for wave in waves if wave is not None]
    if len(known) < 2:
        return UNKNOWN
    if any(wave.measure is None for wave in known):
        return Motion(never="its frequencies have no common measure")
    moving = [wave for wave in known if wave.base]
    if not moving:
        return UNKNOWN
    measure = moving[0].measure
    assert measure is not None
    if any(wave.measure != measure for wave in moving):
        return Motion(never="its frequencies have no common measure")
    base = Fraction(0)
    for wave in moving:
        base = common(base, wave.base)
    with precision(BITS):
        ball, exact = full_turn(measure, base, unit)
        least = all(wave.spectrum is not None for wave in moving)
        mirror = _mirror(known, base, measure, unit) if least else None
    return Motion(End(ball, exact=exact), least, "", mirror)


def _mirror(waves: list[Wave], base: Fraction, measure: Measure, unit: AngleUnit) -> arb | None:
    """A place c such that the point is at c + t where it is at c − t."""
    spectra = [{f: c for f, c in wave.spectrum.items() if f > 0} for wave in waves if wave.spectrum]
    lowest = min((f for spectrum in spectra for f in spectrum), default=None)
    if lowest is None:
        return None
    coefficient = next(spectrum[lowest] for spectrum in spectra if lowest in spectrum)
    count = int(lowest / base)
    if count > MOST_MIRRORS:
        return None
    angle, share = coefficient.log().imag, arb(fmpq(lowest.numerator, lowest.denominator))
    for k in range(count):
        middle = (-angle + arb.pi() * k) / share
        if all(_real(c, f, middle) for spectrum in spectra for f, c in spectrum.items()):
            turn, _ = full_turn(measure, base, unit)
            return middle * arb(fmpq(base.numerator, base.denominator)) * turn / (2 * arb.pi())
    return None


def _real(coefficient: acb, frequency: Fraction, middle: arb) -> bool:
    """Whether a wave is even about a place: there its coefficient turns into a real number."""
    turned = (
        coefficient
        * (acb(0, 1) * acb(middle * fmpq(frequency.numerator, frequency.denominator))).exp()
    )
    return bool(turned.imag.contains(0) and turned.imag.rad() < 1e-40)
