"""Formulas as Python with NumPy and SciPy."""

from __future__ import annotations

import builtins
import keyword
import re
from collections.abc import Iterable
from dataclasses import dataclass, field

from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.exponents import odd_root
from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Constant,
    Expression,
    ListOf,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    Running,
    Series,
    Sum,
)
from axispath.exchange.script.functions import CARRIED, INVERSE, NAMES, PLAIN, TURNED

CONSTANTS = {
    "π": "np.pi",
    "e": "np.e",
    "τ": "(2 * np.pi)",
    "φ": "((1 + 5**0.5) / 2)",
    "∞": "np.inf",
}
# What the parts of a script call their own things; no name of a sheet is written like these.
OWN = ("along", "plane", "figure", "axes", "row", "value", "there", "which", "error")
TAKEN = frozenset(("np", "plt", "integrate", "optimize", "special", *OWN, *NAMES))
DERIVED = re.compile(r".*_(?:slope\d*|model|found|spread|errors)")
SUM, PRODUCT, SIGN, POWER, ATOM = range(5)


INFINITE = Constant("∞")


class NotWritten(Exception):
    """A formula that plain Python cannot hold; the message is a sentence."""


def identifier(name: str) -> str:
    """A name of the sheet as one of Python."""
    clean = "".join(sign if sign.isalnum() or sign == "_" else "_" for sign in name)
    if not clean.isidentifier():
        clean = f"v_{clean}"
    taken = clean in TAKEN or DERIVED.fullmatch(clean) is not None
    if keyword.iskeyword(clean) or taken or hasattr(builtins, clean):
        clean += "_"
    return clean


@dataclass
class Writer:
    """Writes formulas; ``used`` are the helpers that they need, ``slopes`` the derivatives.

    ``defined`` are the names that a script has a meaning for.
    """

    unit: AngleUnit
    used: dict[str, None] = field(default_factory=dict)
    slopes: dict[tuple[str, int], None] = field(default_factory=dict)
    defined: dict[str, str] = field(default_factory=dict)

    def text(self, node: Expression) -> str:
        """A formula. Raises NotWritten."""
        return self._write(node)[0]

    def _bracketed(self, node: Expression, above: int) -> str:
        text, level = self._write(node)
        return text if level >= above else f"({text})"

    def _write(self, node: Expression) -> tuple[str, int]:
        match node:
            case Number(text):
                return (text if text.lstrip("0") or text == "0" else "0"), ATOM
            case Constant(name) if name in CONSTANTS:
                return CONSTANTS[name], ATOM
            case Name(name):
                return identifier(name), ATOM
            case Negation(operand):
                return f"-{self._bracketed(operand, SIGN)}", SIGN
            case Sum(terms):
                return self._sum(terms), SUM
            case Product(left, right):
                second = self._bracketed(right, POWER)
                return f"{self._bracketed(left, PRODUCT)} * {second}", PRODUCT
            case Quotient(top, bottom):
                return (
                    f"{self._bracketed(top, PRODUCT)} / {self._bracketed(bottom, POWER)}",
                    PRODUCT,
                )
            case Power(base, exponent):
                return self._power(base, exponent)
            case Apply(function, arguments):
                return self._apply(function, [self.text(one) for one in arguments]), ATOM
            case Call(name, arguments, order):
                return self._call(name, [self.text(one) for one in arguments], order), ATOM
            case Cases():
                return self._cases(node), ATOM
            case Series(kind, body, index, low, high):
                return self._series(kind, body, index, low, high), ATOM
            case Running("integral", body, index, (low, high)) if INFINITE not in (low, high):
                self.used["integral"] = None
                ends = f"{self.text(low)}, {self.text(high)}"
                return f"integral(lambda {identifier(index)}: {self.text(body)}, {ends})", ATOM
            case ListOf(items):
                return self._list(items), ATOM
        raise NotWritten("this has no counterpart in plain Python")

    def _sum(self, terms: tuple[Expression, ...]) -> str:
        found = self._bracketed(terms[0], SUM)
        for term in terms[1:]:
            if isinstance(term, Negation):
                found += f" - {self._bracketed(term.operand, PRODUCT)}"
            else:
                found += f" + {self._bracketed(term, PRODUCT)}"
        return found

    def _power(self, base: Expression, exponent: Expression) -> tuple[str, int]:
        if base == Constant("e"):
            return f"np.exp({self.text(exponent)})", ATOM
        root = odd_root(exponent)
        if root is not None:
            self.used["real_root"] = None
            inner = f"real_root({self.text(base)}, {root.denominator})"
            return (inner, ATOM) if root.numerator == 1 else (f"{inner}**{root.numerator}", POWER)
        self.used["power"] = None
        return f"power({self.text(base)}, {self.text(exponent)})", ATOM

    def _apply(self, function: str, given: list[str]) -> str:
        if function == "degrees":
            return given[0] if self.unit is AngleUnit.DEGREE else f"np.radians({given[0]})"
        degrees = self.unit is AngleUnit.DEGREE
        if degrees and function in TURNED:
            given = [f"np.radians({given[0]})", *given[1:]]
        if function in CARRIED:
            self.used[CARRIED[function]] = None
            text = f"{CARRIED[function]}({', '.join(given)})"
        elif function in PLAIN:
            text = f"{PLAIN[function]}({', '.join(given)})"
        else:
            raise NotWritten(f"{function} has no counterpart in plain Python")
        return f"np.degrees({text})" if degrees and function in INVERSE else text

    def _call(self, name: str, given: list[str], order: int) -> str:
        if not order:
            return f"{identifier(name)}({', '.join(given)})"
        self.slopes[name, order] = None
        return f"{slope_name(name, order)}({', '.join(given)})"

    def _cases(self, node: Cases) -> str:
        conditions = ", ".join(self.condition(one) for one in node.conditions)
        values = ", ".join(f"{self.text(one)}" for one in node.values)
        otherwise = "np.nan" if node.otherwise is None else self.text(node.otherwise)
        self.used["choose"] = None
        return f"choose([{conditions}], [{values}], {otherwise})"

    def condition(self, one: Comparison) -> str:
        """A chain of comparisons."""
        parts = [self._bracketed(part, SUM) for part in one.operands]
        pairs = zip(parts, one.signs, parts[1:], strict=False)
        signs = {"=": "=="}
        return " & ".join(f"({a} {signs.get(sign, sign)} {b})" for a, sign, b in pairs)

    def _series(
        self, kind: str, body: Expression, index: str, low: Expression, high: Expression
    ) -> str:
        inner, letter = self.text(body), identifier(index)
        ends = f"range(round({self.text(low)}), round({self.text(high)}) + 1)"
        word = "sum" if kind == "sum" else "np.prod"
        made = f"{inner} for {letter} in {ends}"
        return f"sum({made})" if word == "sum" else f"np.prod([{made}], axis=0)"

    def _list(self, items: Iterable[Expression]) -> str:
        return f"np.array([{', '.join(self.text(one) for one in items)}])"


def slope_name(name: str, order: int) -> str:
    """What the derivative of a function is called."""
    return f"{identifier(name)}_slope{'' if order == 1 else order}"
