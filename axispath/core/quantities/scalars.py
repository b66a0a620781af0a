"""Arithmetic of single numbers: exact while it can be, enclosed otherwise."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction

from flint import acb, arb, fmpz

from axispath.core.quantities.dimensions import NONE, Dimension, combined, raised, told
from axispath.core.quantities.surds import ZERO, NotExact, Surd
from axispath.core.quantities.values import Measured, NoResult, Scalar, Undefined

DIVIDES_BY_ZERO = "it divides by 0"
UNDECIDED = "whether two numbers are equal cannot be told within the digits that are computed"
Enclosure = arb | acb


class TooWide(ArithmeticError):
    """The enclosures are too wide to decide something: more digits are needed."""


def enclosed(value: Surd | Enclosure) -> Enclosure:
    """A number as a ball."""
    return value.ball() if isinstance(value, Surd) else value


def known(value: Scalar) -> Surd | Enclosure:
    """The number itself. Raises NoResult where there is none."""
    if isinstance(value, Undefined):
        raise NoResult(value.why)
    if isinstance(value, Measured):
        raise NoResult(f"a plain number is needed here, and this is in {told(value.dimension)}")
    return value


def complex_of(value: Surd | Enclosure) -> acb:
    """A number as a complex ball."""
    ball = enclosed(value)
    return ball if isinstance(ball, acb) else acb(ball)


def is_real(value: Scalar) -> bool:
    """Whether a number is real for certain."""
    if isinstance(value, Measured):
        return is_real(value.value)
    return value.is_real if isinstance(value, Surd) else isinstance(value, arb)


def real_ball(value: Scalar, what: str = "This") -> arb:
    """A real number as a ball. Raises NoResult for others."""
    ball = enclosed(known(value))
    if isinstance(ball, acb):
        raise NoResult(f"{what} has to be a real number")
    return ball


def simplified(value: Enclosure) -> Enclosure:
    """A complex ball without an imaginary part as a real one."""
    return value.real if isinstance(value, acb) and value.imag.is_zero() else value


def _both(
    exactly: Callable[[Surd, Surd], Surd], roughly: Callable[[Enclosure, Enclosure], Enclosure]
) -> Callable[[Scalar, Scalar], Scalar]:
    def work(left: Scalar, right: Scalar) -> Scalar:
        if isinstance(left, Undefined):
            return left
        if isinstance(right, Undefined):
            return right
        if isinstance(left, Measured) or isinstance(right, Measured):
            return _alike(work, left, right)
        if isinstance(left, Surd) and isinstance(right, Surd):
            try:
                return exactly(left, right)
            except NotExact:
                pass
            except ZeroDivisionError:
                return Undefined(DIVIDES_BY_ZERO)
        return simplified(roughly(enclosed(left), enclosed(right)))

    return work


def dimension_of(value: Scalar) -> Dimension:
    """The dimension of a number."""
    return value.dimension if isinstance(value, Measured) else NONE


def _bare(value: Scalar) -> Surd | Enclosure | Undefined:
    return value.value if isinstance(value, Measured) else value


def measured(value: Scalar, of: Dimension) -> Scalar:
    """A number with a dimension, plain where there is none."""
    if isinstance(value, Undefined | Measured) or of == NONE:
        return value
    return Measured(value, of)


def _alike(work: Callable[[Scalar, Scalar], Scalar], left: Scalar, right: Scalar) -> Scalar:
    """A sum or a difference of quantities, which have to be of one dimension."""
    first, second = dimension_of(left), dimension_of(right)
    if first != second:
        raise NoResult(f"{told(first)} and {told(second)} cannot be added or compared")
    found = measured(work(_bare(left), _bare(right)), first)
    return _on_scale(work, left, right, found)


def _has_zero(value: Scalar) -> bool:
    """Whether a temperature stands on a scale with a zero of its own."""
    return isinstance(value, Measured) and value.shown_in is not None and value.shown_in[2] != 0


def _on_scale(
    work: Callable[[Scalar, Scalar], Scalar], left: Scalar, right: Scalar, found: Scalar
) -> Scalar:
    """Temperatures on a scale with a zero of its own: only differences are added to them."""
    shown = left.shown_in if isinstance(left, Measured) else None
    scales = [_has_zero(left), _has_zero(right)]
    if not isinstance(found, Measured):
        return found
    if scales == [True, True] and work is subtract:
        return found
    if scales[1]:
        raise NoResult("temperatures on such a scale are not added: give a difference in K")
    return replace(found, shown_in=shown)


add = _both(lambda a, b: a + b, lambda a, b: a + b)
subtract = _both(lambda a, b: a - b, lambda a, b: a - b)


def multiply(left: Scalar, right: Scalar) -> Scalar:
    """A product: 0 times whatever there is is 0."""
    if isinstance(left, Measured) or isinstance(right, Measured):
        of = combined(dimension_of(left), dimension_of(right))
        return measured(multiply(_bare(left), _bare(right)), of)
    for one, other in ((left, right), (right, left)):
        if isinstance(one, Surd) and one.is_zero and not isinstance(other, Undefined):
            return ZERO
    return _multiply(left, right)


_multiply = _both(lambda a, b: a * b, lambda a, b: a * b)


def _over(top: Enclosure, bottom: Enclosure) -> Enclosure:
    if bottom.contains(0):
        raise TooWide
    return top / bottom


def divide(left: Scalar, right: Scalar) -> Scalar:
    """A quotient; undefined where it divides by 0."""
    if isinstance(left, Measured) or isinstance(right, Measured):
        of = combined(dimension_of(left), dimension_of(right), -1)
        return measured(divide(_bare(left), _bare(right)), of)
    if isinstance(right, Surd) and right.is_zero and not isinstance(left, Undefined):
        return Undefined(DIVIDES_BY_ZERO)
    return _divide(left, right)


_divide = _both(lambda a, b: a / b, _over)


def negate(value: Scalar) -> Scalar:
    """The opposite."""
    if isinstance(value, Measured):
        return replace(value, value=-value.value)
    return value if isinstance(value, Undefined) else -value


def is_zero(value: Scalar) -> bool:
    """Whether a number is 0. Raises TooWide where its enclosure does not tell."""
    bare = known(_bare(value))
    if isinstance(bare, Surd):
        return bare.is_zero
    if bare.is_zero():
        return True
    if bare.contains(0):
        raise TooWide
    return False


def sign(value: Scalar) -> int:
    """1, 0 or −1 of a real number. Raises TooWide, and NoResult for complex numbers."""
    value = _bare(value)
    if isinstance(value, Surd) and value.is_real:
        try:
            return value.sign()
        except NotExact:
            raise TooWide from None
    ball = real_ball(value, "What is compared")
    if ball > 0 or ball < 0:
        return 1 if ball > 0 else -1
    if ball.is_zero():
        return 0
    raise TooWide


def whole(value: Scalar, what: str) -> int:
    """A whole number. Raises NoResult for anything else."""
    found = value.rational if isinstance(value, Surd) else None
    if found is None or found.denominator != 1:
        raise NoResult(f"{what} has to be a whole number")
    return int(found)


def to_power(base: Scalar, exponent: Scalar) -> Scalar:
    """The principal power. 0 to the 0 is 1, as everywhere in the language."""
    if isinstance(base, Undefined) or isinstance(exponent, Undefined):
        return base if isinstance(base, Undefined) else exponent
    if isinstance(exponent, Measured):
        raise NoResult(f"an exponent is a plain number, not {told(exponent.dimension)}")
    if isinstance(base, Measured):
        return _power_of_measured(base, exponent)
    power = exponent.rational if isinstance(exponent, Surd) else None
    if isinstance(base, Surd) and power is not None:
        found = _exact_power(base, power)
        if found is not None:
            return found
    if isinstance(base, Surd) and base.is_zero:
        if is_real(exponent) and sign(exponent) > 0:
            return ZERO
        return Undefined("0 has no such power")
    if power is not None and power.denominator == 1 and abs(power) < 10**9:
        ball = enclosed(base)
        if power < 0 and ball.contains(0):
            raise TooWide
        return simplified(ball ** fmpz(int(power)))
    if is_real(base) and is_real(exponent) and sign(base) > 0:
        return _positive_power(real_ball(base), real_ball(exponent))
    return simplified(complex_of(base) ** complex_of(exponent))


def _power_of_measured(base: Measured, exponent: Scalar) -> Scalar:
    power = exponent.rational if isinstance(exponent, Surd) else None
    if power is None:
        raise NoResult("a quantity is raised to a fraction, so that its unit is known")
    return measured(to_power(base.value, exponent), raised(base.dimension, power))


def _positive_power(base: arb, exponent: arb) -> arb:
    return (base.log() * exponent).exp()


def _exact_power(base: Surd, power: Fraction) -> Scalar | None:
    if base.is_zero:
        if power < 0:
            return Undefined("0 has no negative power")
        return Surd.of(0 if power else 1)
    try:
        if power.denominator == 1:
            return base.to_power(int(power))
        if power.denominator == 2:
            return base.square_root().to_power(power.numerator)
    except NotExact:
        return None
    value = base.rational
    if value is None or value <= 0 or power.denominator > 64:
        return None
    parts = [_whole_root(part, power.denominator) for part in (value.numerator, value.denominator)]
    if parts[0] is None or parts[1] is None:
        return None
    try:
        return Surd.of(Fraction(parts[0], parts[1])).to_power(power.numerator)
    except NotExact:
        return None


def _whole_root(value: int, n: int) -> int | None:
    """The n-th root of a whole number where it is one."""
    root = int(fmpz(value).root(n)) if value else 0
    return root if root**n == value else None


def real_root(value: Scalar, n: int) -> Scalar:
    """The real n-th root for odd n, of negative numbers too."""
    if isinstance(value, Undefined):
        return value
    if isinstance(value, Measured):
        return measured(real_root(value.value, n), raised(value.dimension, Fraction(1, n)))
    if not is_real(value):
        return to_power(value, Surd.of(Fraction(1, n)))
    if sign(value) < 0:
        return negate(to_power(negate(value), Surd.of(Fraction(1, n))))
    return to_power(value, Surd.of(Fraction(1, n)))


def absolute(value: Scalar) -> Scalar:
    """|z|, exact where it can be."""
    if isinstance(value, Measured):
        return measured(absolute(value.value), value.dimension)
    if isinstance(value, Undefined):
        return value
    if isinstance(value, Surd):
        if value.is_real:
            return value if sign(value) >= 0 else -value
        real, imaginary = value.parts
        try:
            return (real * real + imaginary * imaginary).square_root()
        except NotExact:
            pass
    ball = enclosed(value)
    return abs(ball)
