"""Exact results as a student writes them: 5/7, 2√3, (1 + √5)/2, 5π/6, 3 + 1/7."""

from __future__ import annotations

from fractions import Fraction

from axispath.core import catalogue
from axispath.core.calculation.trees import tree_of
from axispath.core.language.notation import write
from axispath.core.language.numbers import MINUS, RAISED
from axispath.core.language.plain import Plain, plain
from axispath.core.language.tree import Expression
from axispath.core.language.vocabulary import Shape, Word
from axispath.core.quantities.surds import Surd

LONGEST = 40  # characters of a form that is still easier to read than a decimal


class _Shown(Plain):
    """Roots as signs, products without one."""

    def times(self, left: str, right: str, written: bool) -> str:
        if written:
            return f"{left}·{right}"
        return f"{left} {right}" if "√" in left and right.isalpha() else f"{left}{right}"

    def over(self, top: str, bottom: str) -> str:
        # What stands in a product below belongs together.
        plain = bottom.isalnum() or bottom.startswith(("√", "(")) or bottom in ("π",)
        return f"{top}/{bottom if plain else f'({bottom})'}"

    def power(self, base: str, exponent: str) -> str:
        return f"{base}{exponent.translate(RAISED)}" if exponent.isdigit() else f"{base}^{exponent}"

    def apply(self, word: Word, arguments: list[str]) -> str:
        if word.shape is Shape.ROOT:
            inner = arguments[0]
            return f"√{inner}" if inner.isdigit() else f"√({inner})"
        return super().apply(word, arguments)


def told(node: Expression) -> str:
    """A number as text that reads back as the same."""
    return write(node, _Shown(catalogue.VOCABULARY)).replace("-", MINUS)


def formula_text(node: Expression) -> str:
    """A formula as it is typed."""
    return plain(node, catalogue.VOCABULARY)


def exact_text(value: Surd) -> str:
    """An exact number as text; empty where it is too long to be of use."""
    text = told(tree_of(value))
    return text if len(text) <= LONGEST else ""


def mixed_text(value: Fraction) -> str:
    """A fraction as a whole number and a proper fraction: 3 + 1/7."""
    whole, rest = divmod(abs(value.numerator), value.denominator)
    sign = MINUS if value < 0 else ""
    if not rest or not whole:
        return exact_text(Surd.of(value))
    inner = f"{whole} + {rest}/{value.denominator}"
    return f"{sign}({inner})" if sign else inner
