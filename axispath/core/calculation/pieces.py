"""Small questions about values that the evaluator asks."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.memory import remembered
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Scalar


def is_turned(base: Scalar) -> bool:
    """Whether an exact number has an angle other than 0."""
    if not isinstance(base, Surd) or base.is_zero:
        return False
    return not base.is_real or base.sign() < 0


@remembered(4096)
def number_of(text: str) -> Surd:
    """A number as it was typed."""
    return Surd.of(Fraction(text))
