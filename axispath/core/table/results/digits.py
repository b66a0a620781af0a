"""Numbers with so many digits: as they are, with fixed places, or with a power of ten."""

from __future__ import annotations

import math
from decimal import MAX_EMAX, MIN_EMIN, ROUND_HALF_EVEN, Context, Decimal
from fractions import Fraction

from flint import acb, arb

from axispath.core.catalogue.balls import precision
from axispath.core.language.numbers import MINUS, RAISED, trimmed
from axispath.core.quantities.surds import Surd

LARGEST_FIXED = 15  # powers of ten beyond which fixed places say nothing
LARGEST_PLAIN = 9
STEP = {"scientific": 1, "engineering": 3}  # of the power of ten
WANTED = 100  # bits
FARTHEST, SMALLEST = 2 * 10**9, 6 * 10**8  # powers of two, of ten
SPARE = 30  # digits beyond those that are shown
BITS_A_DIGIT = math.log2(10)


def decimal_of(value: Surd | arb) -> tuple[Decimal, int]:
    """A real number with more digits than anybody sees, and how many of them are right."""
    if isinstance(value, Surd):
        rational = value.rational
        if rational is not None:
            return _quotient(rational), 15 + SPARE
        value = _close(value)
    if value.is_zero():
        return Decimal(0), SPARE
    right = int(value.rel_accuracy_bits() / BITS_A_DIGIT)
    return Decimal(value.mid().str(15 + SPARE, radius=False)), right


def upper_of(value: arb) -> Decimal:
    """How far a number is from 0 at most; a very small one where it is less than can be written."""
    upper = value.abs_upper()
    if not upper.is_zero() and int(upper.man_exp()[1]) < -FARTHEST:
        return Decimal(1).scaleb(-SMALLEST, _context(1))
    return decimal_of(upper)[0]


def _close(value: Surd) -> arb:
    """A real number with all the digits that anybody sees, whatever cancels in it."""
    ball = arb(0)
    for bits in (128, 512, 2_048, 8_192):
        with precision(bits):
            found = value.ball()
            ball = found.real if isinstance(found, acb) else found
            if ball.rel_accuracy_bits() >= WANTED:
                return ball
    return ball


def _context(digits: int) -> Context:
    return Context(prec=digits, Emax=MAX_EMAX, Emin=MIN_EMIN)


def _quotient(value: Fraction) -> Decimal:
    return _context(15 + SPARE).divide(Decimal(value.numerator), Decimal(value.denominator))


def written(value: Decimal, notation: str, digits: int) -> str:
    """A number as it is wanted: so many digits, behind the point where these are fixed."""
    if notation in STEP:
        return _power(value, STEP[notation], digits)
    if value == 0 and notation != "fixed":
        return "0"
    if notation == "fixed":
        if value and value.adjusted() >= LARGEST_FIXED:
            return _power(value, 1, digits)
        step = Decimal(1).scaleb(-digits)
        return _signed(f"{value.quantize(step, ROUND_HALF_EVEN, _context(80)):f}")
    if value == value.to_integral_value() and value.adjusted() < LARGEST_PLAIN:
        return _signed(f"{value:.0f}")
    near = _context(digits).plus(value)
    if -5 <= near.adjusted() < digits:
        return _signed(trimmed(f"{near:f}"))
    mantissa = near.scaleb(-near.adjusted(), _context(digits))
    power = str(near.adjusted()).translate(RAISED)
    return f"{_signed(trimmed(f'{mantissa:f}'))}×10{power}"


def _signed(text: str) -> str:
    if text.startswith("-"):
        return text[1:] if not text.strip("-0.") else MINUS + text[1:]
    return text


def _power(value: Decimal, step: int, digits: int) -> str:
    if value == 0:
        return "0"
    near = _context(digits).plus(value)
    low = near.adjusted() // step * step
    text = _signed(trimmed(f"{near.scaleb(-low, _context(digits)):f}"))
    return f"{text} × 10{str(low).translate(RAISED)}" if low else text


def says(shown: str, value: Surd) -> bool:
    """Whether a decimal is exactly a number."""
    rational = value.rational
    if rational is None:
        return False
    mantissa, _, power = shown.replace(MINUS, "-").replace(" ", "").partition("×10")
    exponent = int(power.translate(LOWERED)) if power else 0
    return abs(exponent) < 400 and Fraction(mantissa) * Fraction(10) ** exponent == rational


LOWERED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")
