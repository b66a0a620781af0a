"""Functions of a formula in which a letter runs. What carries them out is ``core/calculation``."""

from __future__ import annotations

from axispath.core.catalogue.calculated import Calculated, word
from axispath.core.quantities.values import NoResult, Value


def _needs_letter(*_: Value) -> Value:
    raise NoResult("say which letter runs: “for x = 0 to 1”")


ENTRIES = (
    Calculated(
        word("derivative", "x^3 for x", runs="=?"),
        "The derivative of a formula, or its value: derivative(x^3 for x = 2).",
        "derivative(x^3 for x)",
        _needs_letter,
    ),
    Calculated(
        word("integral", "x^2 for x = 0 to 1", runs="= to"),
        "The definite integral, enclosed for certain; the exact form where one is found.",
        "integral(x^2 for x = 0 to 1)",
        _needs_letter,
    ),
    Calculated(
        word("limit", "sin(x)/x for x to 0", runs="to"),
        "A limit, also towards ∞ and from one side: limit(1/x for x to 0, right).",
        "limit(sin(x)/x for x to 0)",
        _needs_letter,
    ),
    Calculated(
        word("taylor", "sin x for x = 0, 5", runs="="),
        "The Taylor polynomial about a place, up to a degree.",
        "taylor(sin x for x = 0, 5)",
        _needs_letter,
    ),
    Calculated(
        word("zeros", "x^3 - 1 for x", runs="-"),
        "All zeros of a polynomial with fractions as coefficients, the complex ones too.",
        "zeros(x^3 - 1 for x)",
        _needs_letter,
    ),
)
