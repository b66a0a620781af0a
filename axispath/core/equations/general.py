"""The general solution of a linear system with too few equations, and what is determined of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from axispath.core import catalogue
from axispath.core.arithmetic.balls import precision
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.clashes import difference_of
from axispath.core.equations.core import Sides
from axispath.core.equations.engines.verify import BITS
from axispath.core.equations.linear import LinearSystem, linear, row_of, smallest, solved
from axispath.core.language.numbers import listed
from axispath.core.language.plain import plain
from axispath.core.quantities.scalars import TooWide, is_zero
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, NoResult, Scalar, Value

Row = tuple[Scalar, ...]


@dataclass(frozen=True, slots=True)
class General:
    """``determined`` are unknowns that are the same in every solution, ``words`` the others.

    ``against`` are the places of rows that contradict each other.
    """

    determined: dict[str, Scalar]
    words: str = ""
    against: tuple[int, ...] = ()


def general_of(
    sides: Sequence[Sides],
    names: tuple[str, ...],
    calculator: Calculator,
    known: Mapping[str, Value],
) -> General | None:
    """The same of equations; None where they are not linear."""
    differences = [difference_of(one) for one in sides]
    if not all(linear(one, set(names)) for one in differences):
        return None
    try:
        with precision(BITS):
            rows = [row_of(one, names, calculator, known) for one in differences]
            return general(rows, names)
    except (NoResult, TooWide):
        return None


def general(rows: Sequence[Row], names: tuple[str, ...]) -> General | None:
    """What rows say of some unknowns, the right-hand side last; None where it is not settled."""
    try:
        found = solved(LinearSystem(names, Grid(tuple(rows))))
        if found.kind == "none":
            return General({}, against=tuple(smallest(list(rows), names)))
        determined = {
            name: value
            for name, value, shares in found.values
            if all(is_zero(share) for share in shares)
        }
        said = [
            f"{name} = {_sum(value, dict(zip(found.free, shares, strict=True)))}"
            for name, value, shares in found.values
            if name not in determined
        ]
    except (TooWide, NoResult):
        return None
    free = f"{listed(found.free)} may be anything" if found.free else ""
    return General(determined, "; ".join([*said, free] if said else [free] if free else []))


def _sum(constant: Scalar, shares: dict[str, Scalar]) -> str:
    """A constant and shares of other unknowns, in one line."""
    found = ""
    for name, share in [("", constant), *shares.items()]:
        if is_zero(share) and (name or not all(is_zero(one) for one in shares.values())):
            continue
        negative, text = _term(share, name)
        minus = "−" if negative else ""
        found += f" {minus or '+'} {text}" if found else f"{minus}{text}"
    return found


def _term(share: Scalar, name: str) -> tuple[bool, str]:
    """So many times a name, or a bare number: whether it is negative, and its size."""
    if not isinstance(share, Surd):
        raise NoResult("only exact numbers are written out")
    rational = share.rational
    if rational is None:
        text = plain(tree_of(share), catalogue.VOCABULARY)
        return False, f"({text}) {name}" if name else text
    size = abs(rational)
    above = f"{size.numerator} {name}" if name and size.numerator != 1 else name or size.numerator
    below = f"/{size.denominator}" if size.denominator != 1 else ""
    return rational < 0, f"{above}{below}"
