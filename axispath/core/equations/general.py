"""Linear equations by elimination: what is determined, and all solutions in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from axispath.core import catalogue
from axispath.core.arithmetic.balls import precision
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.clashes import difference_of
from axispath.core.equations.core import Sides
from axispath.core.equations.engines.verify import BITS
from axispath.core.equations.linear import LinearSolution, LinearSystem, linear, row_of, solved
from axispath.core.language.numbers import listed
from axispath.core.language.plain import plain
from axispath.core.quantities.scalars import TooWide, is_zero
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Grid, NoResult, Scalar, Value


class Contradiction(NoResult):
    """Linear equations without a solution, with their rows."""

    def __init__(self, rows: tuple[tuple[Scalar, ...], ...]) -> None:
        super().__init__("they contradict each other")
        self.rows = rows


def eliminated(
    sides: Sequence[Sides],
    names: tuple[str, ...],
    calculator: Calculator,
    known: Mapping[str, Value],
) -> LinearSolution | None:
    """The solutions of linear equations; None for others. Raises NoResult, Contradiction."""
    differences = [difference_of(one) for one in sides]
    if not all(linear(one, set(names)) for one in differences):
        return None
    with precision(BITS):
        rows = tuple(row_of(one, names, calculator, known) for one in differences)
        try:
            found = solved(LinearSystem(names, Grid(rows)))
        except TooWide:
            raise NoResult("whether they can be told apart was not settled") from None
    if found.kind == "none":
        raise Contradiction(rows)
    return found


def determined(found: LinearSolution) -> dict[str, Scalar]:
    """The unknowns that are the same in every solution. Raises TooWide."""
    return {
        name: value
        for name, value, shares in found.values
        if all(is_zero(share) for share in shares)
    }


def every_solution(found: LinearSolution) -> str:
    """The unknowns that are not, by those that are free. Raises TooWide, and NoResult where the
    numbers in it are not exact.
    """
    fixed = determined(found)
    said = [
        f"{name} = {_sum(value, dict(zip(found.free, shares, strict=True)))}"
        for name, value, shares in found.values
        if name not in fixed
    ]
    return "; ".join([*said, *([f"{listed(found.free)} may be anything"] if found.free else [])])


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
