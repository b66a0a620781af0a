"""Complex numbers: parts, conjugate, polar form, all roots."""

from __future__ import annotations

from fractions import Fraction

from flint import acb

from axispath.core.catalogue.calculated import Calculated, word
from axispath.core.quantities.grids import each, scalar
from axispath.core.quantities.polar import angle_of, principal_root, turned
from axispath.core.quantities.scalars import (
    absolute,
    multiply,
    whole,
)
from axispath.core.quantities.surds import ZERO, Surd
from axispath.core.quantities.values import Items, NoResult, Scalar, Undefined, Value

MOST_ROOTS = 100


def _real(z: Scalar) -> Scalar:
    if isinstance(z, Undefined):
        return z
    return z.parts[0] if isinstance(z, Surd) else z.real if isinstance(z, acb) else z


def _imaginary(z: Scalar) -> Scalar:
    if isinstance(z, Undefined):
        return z
    return z.parts[1] if isinstance(z, Surd) else z.imag if isinstance(z, acb) else ZERO


def _conjugate(z: Scalar) -> Scalar:
    if isinstance(z, Surd | acb):
        return z.conjugate()
    return z


def _argument(degrees: bool, value: Value) -> Value:
    return each(lambda z: angle_of(z, degrees), value)


def _polar(degrees: bool, value: Value) -> Value:
    z = scalar(value, "what polar takes")
    return Items((absolute(z), angle_of(z, degrees)))


def _unit(degrees: bool, value: Value) -> Value:
    return each(lambda angle: turned(angle, degrees), value)


def _roots(count: Value, value: Value) -> Value:
    n = whole(scalar(count, "the number of roots"), "the number of roots")
    z = scalar(value, "what roots takes")
    if not 1 <= n <= MOST_ROOTS:
        raise NoResult(f"there are 1 to {MOST_ROOTS} roots here")
    if isinstance(z, Undefined):
        raise NoResult(z.why)
    if isinstance(z, Surd) and z.is_zero:
        return Items((ZERO,))
    first = principal_root(z, n)
    steps = (turned(Surd.of(Fraction(360 * k, n)), degrees=True) for k in range(n))
    return Items(tuple(multiply(first, step) for step in steps))


ENTRIES = (
    Calculated(
        word("Re", "z", spellings=("re",)),
        "The real part of a complex number.",
        "Re(2 - 5i)",
        lambda z: each(_real, z),
    ),
    Calculated(
        word("Im", "z", spellings=("im",)),
        "The imaginary part of a complex number, without i.",
        "Im(2 - 5i)",
        lambda z: each(_imaginary, z),
    ),
    Calculated(
        word("conj", "z", spellings=("conjugate",)),
        "The conjugate: with −i in place of i.",
        "conj(2 - 5i)",
        lambda z: each(_conjugate, z),
    ),
    Calculated(
        word("arg", "z"),
        "The angle of a complex number from the positive real axis, above −180° and up to 180°, in "
        "the angle unit of the sheet.",
        "arg(1 + i)",
        _argument,
        angles=True,
    ),
    Calculated(
        word("polar", "z"),
        "The polar form of a complex number: its distance from 0, and its angle.",
        "polar(1 + i)",
        _polar,
        angles=True,
    ),
    Calculated(
        word("cis", "angle"),
        "cos + i sin of an angle: 3 cis(π/4) is the number at distance 3 and angle π/4.",
        "3 cis(π/4)",
        _unit,
        angles=True,
    ),
    Calculated(
        word("roots", "n", "z"),
        "All n-th roots of a number, the principal one first, then by their angles.",
        "roots(3, 8)",
        _roots,
    ),
)
