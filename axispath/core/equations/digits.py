"""How many digits an answer carries: one more than the least that was typed of a quantity."""

from __future__ import annotations

from collections.abc import Iterable

from axispath.core.equations.reading import Equation
from axispath.core.language.tree import Expression, Negation, Number, Product, Quotient, UnitOf
from axispath.core.language.walking import walk

LEAST = 4


def typed_digits(equations: Iterable[Equation]) -> int:
    """The digits that results carry; 0 where no number with a unit was typed."""
    counts = [
        _digits(node.text)
        for one in equations
        for side in (one.left, one.right)
        for node in _measured(side)
    ]
    return max(LEAST, min(counts) + 1) if counts else 0


def _measured(side: Expression) -> Iterable[Number]:
    """The numbers that stand in front of a unit."""
    for node in walk(side):
        if isinstance(node, Product | Quotient):
            top, unit = (
                (node.left, node.right)
                if isinstance(node, Product)
                else (
                    node.numerator,
                    node.denominator,
                )
            )
            top = top.operand if isinstance(top, Negation) else top
            if isinstance(top, Number) and any(isinstance(part, UnitOf) for part in walk(unit)):
                yield top


def _digits(text: str) -> int:
    """The significant digits of a number as typed; zeros at the end of a whole number count."""
    mantissa = text.lower().partition("e")[0].replace(".", "").lstrip("0")
    return len(mantissa)
