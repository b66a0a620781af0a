"""Tree to written mathematics. Where brackets go is decided once, for every notation.

A notation is a small set of ways to write one thing (a fraction, a power, …); the three
that exist are in plain.py, latex.py and mathml.py.
"""

from __future__ import annotations

from typing import Protocol

from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Condition,
    Constant,
    Converted,
    Domain,
    Expression,
    FunctionStatement,
    ListOf,
    MatrixOf,
    Name,
    Negation,
    Number,
    OfRelation,
    Pair,
    Part,
    Power,
    Product,
    Quotient,
    RelationStatement,
    Running,
    Series,
    Statement,
    Stretch,
    Sum,
    UnitOf,
)
from axispath.core.language.vocabulary import Shape, Vocabulary, Word

# How tightly each kind of node holds together, loosest first.
SUM, PRODUCT, SIGNED, POWER, ATOM = range(5)


class Notation(Protocol):
    """The ways of writing that a notation must offer."""

    vocabulary: Vocabulary
    fractions: bool  # whether a fraction bar brackets what it divides

    def number(self, text: str) -> str:
        """A decimal number."""

    def name(self, name: str) -> str:
        """A name or a constant."""

    def sign(self, sign: str) -> str:
        """One of + − = ≤ < ∈ , or the word for."""

    def join(self, parts: list[str]) -> str:
        """Parts side by side."""

    def times(self, left: str, right: str, written: bool) -> str:
        """A product, with a sign where ``written``."""

    def over(self, top: str, bottom: str) -> str:
        """A quotient."""

    def power(self, base: str, exponent: str) -> str:
        """A power."""

    def bracket(self, inner: str, opening: str = "(", closing: str = ")") -> str:
        """Something in brackets."""

    def apply(self, word: Word, arguments: list[str]) -> str:
        """A function of the catalogue with its arguments."""

    def cases(self, rows: list[tuple[str, str | None]]) -> str:
        """Values with their conditions; None is the condition of the last resort."""

    def series(self, kind: str, body: str, index: str, low: str, high: str) -> str:
        """A sum or a product over a range."""

    def unit(self, symbol: str) -> str:
        """A unit of measurement."""

    def grid(self, rows: list[list[str]]) -> str:
        """A matrix."""

    def running(
        self, function: str, body: str, index: str, ends: list[str], arguments: list[str], side: str
    ) -> str:
        """A function of a formula in which a letter runs."""


def write(node: Expression, notation: Notation) -> str:
    """An expression in a notation."""
    return _write(node, notation)


def write_statement(statement: Statement, notation: Notation, name: str | None = None) -> str:
    """A whole line; ``name`` is used where the statement has none of its own."""
    if isinstance(statement, RelationStatement):
        return _relation(statement, notation)
    body = _write(statement.body, notation)
    own = statement.name or name
    if not isinstance(statement, FunctionStatement):
        return notation.join([notation.name(own), notation.sign("="), body]) if own else body
    parts = [body]
    if own:
        given = _comma(notation, [notation.name(word) for word in statement.parameters])
        head = notation.join([notation.name(own), notation.bracket(given)])
        parts = [head, notation.sign("="), body]
    elif statement.polar:
        parts = [notation.name("r"), notation.sign("="), body]
    if statement.domain:
        parts += [notation.sign("for"), write_domain(statement.domain, notation)]
    return notation.join(parts)


def _relation(statement: RelationStatement, notation: Notation) -> str:
    parts = [write_condition(statement.condition, notation)]
    if statement.within is not None:
        parts += [notation.sign("for"), write_condition(statement.within, notation)]
    return notation.join(parts)


def write_condition(condition: Condition, notation: Notation) -> str:
    """Comparisons, with the words between them."""
    if isinstance(condition, Comparison):
        return _comparison(condition, notation)
    if isinstance(condition, OfRelation):
        return notation.name(condition.name)
    parts = [write_condition(condition.parts[0], notation)]
    for part in condition.parts[1:]:
        parts += [notation.sign(condition.word), write_condition(part, notation)]
    return notation.join(parts)


def write_domain(domain: Domain, notation: Notation) -> str:
    """A domain as a chain of comparisons, or as membership where it has no ends."""
    variable = notation.name(domain.variable)
    low = domain.low and _argument(domain.low, notation)
    high = domain.high and _argument(domain.high, notation)
    below = notation.sign("≤" if domain.low_closed else "<")
    under = notation.sign("≤" if domain.high_closed else "<")
    if low and high:
        return notation.join([low, below, variable, under, high])
    if low:
        return notation.join([variable, notation.sign("≥" if domain.low_closed else ">"), low])
    if high:
        return notation.join([variable, under, high])
    whole = _comma(notation, [notation.name("-∞"), notation.name("∞")])
    return notation.join([variable, notation.sign("in"), notation.bracket(whole)])


def _comma(notation: Notation, parts: list[str]) -> str:
    found = parts[:1]
    for part in parts[1:]:
        found += [notation.sign(","), part]
    return notation.join(found)


def _write(node: Expression, notation: Notation) -> str:
    match node:
        case Number(text):
            return notation.number(text)
        case Constant(name) | Name(name):
            return notation.name(name)
        case Negation(operand):
            return notation.join([notation.sign("neg"), _at_least(operand, SIGNED, notation)])
        case Sum(terms):
            return _sum(terms, notation)
        case Product(left, right):
            return notation.times(
                _at_least(left, PRODUCT, notation),
                _at_least(right, POWER, notation),
                _needs_sign(left, right, notation),
            )
        case Quotient(top, bottom):
            if notation.fractions:
                return notation.over(_write(top, notation), _write(bottom, notation))
            return notation.over(
                _at_least(top, PRODUCT, notation), _at_least(bottom, POWER, notation)
            )
        case Power(base, exponent):
            inner = _write(exponent, notation)
            if not notation.fractions and _tightness(exponent) < SIGNED:
                inner = notation.bracket(inner)
            return notation.power(_base(base, notation), inner)
        case Apply(function, arguments):
            written = [_argument(part, notation) for part in arguments]
            return notation.apply(word_of(function, notation), written)
        case Call(name, arguments, order):
            given = _comma(notation, [_argument(part, notation) for part in arguments])
            primes = [notation.sign("'")] * order
            return notation.join([notation.name(name), *primes, notation.bracket(given)])
        case ListOf(items):
            given = _comma(notation, [_argument(part, notation) for part in items])
            return notation.bracket(given, "[", "]")
        case Pair(Call(one, given), Call(other, same)) if (
            given == same and one[:-2] == other[:-2] and (one[-2:], other[-2:]) == ("_x", "_y")
        ):
            # The point of a curve, as it was typed.
            return _write(Call(one[:-2], given), notation)
        case Pair(polar=(radius, angle)):
            parts = [_argument(part, notation) for part in (radius, angle)]
            return notation.bracket(notation.join([parts[0], notation.sign(";"), parts[1]]))
        case Pair(first, second):
            parts = [_argument(part, notation) for part in (first, second)]
            return notation.bracket(_comma(notation, parts))
        case Cases(values, conditions, otherwise):
            return _cases(values, conditions, otherwise, notation)
        case Series(kind, body, index, low, high):
            low_text, high_text = _argument(low, notation), _argument(high, notation)
            term = (
                _at_least(body, PRODUCT, notation)
                if notation.fractions
                else _argument(body, notation)
            )
            return notation.series(kind, term, notation.name(index), low_text, high_text)
        case MatrixOf(rows):
            return notation.grid([[_argument(v, notation) for v in row] for row in rows])
        case Part(base, indices):
            given = _comma(notation, [_argument(part, notation) for part in indices])
            return notation.join([_base(base, notation), notation.bracket(given, "[", "]")])
        case Stretch(low, high):
            ends = [_argument(low, notation), _argument(high, notation)]
            return notation.join([ends[0], notation.sign("to"), ends[1]])
        case UnitOf(symbol):
            return notation.unit(symbol)
        case Converted(body, unit):
            shown = _at_least(body, PRODUCT, notation)
            return notation.join([shown, notation.sign("shown in"), _write(unit, notation)])
        case Running(function, body, index, limits, others, side):
            loose = function in ("integral", "limit", "derivative", "sum") and notation.fractions
            inner = _at_least(body, PRODUCT, notation) if loose else _argument(body, notation)
            ends_text = [_argument(part, notation) for part in limits]
            others_text = [_argument(part, notation) for part in others]
            name = notation.name(index)
            return notation.running(function, inner, name, ends_text, others_text, side)


def _argument(node: Expression, notation: Notation) -> str:
    """An expression between commas, where cases need brackets of their own."""
    text = _write(node, notation)
    return notation.bracket(text) if isinstance(node, Cases) else text


def _cases(
    values: tuple[Expression, ...],
    conditions: tuple[Comparison, ...],
    otherwise: Expression | None,
    notation: Notation,
) -> str:
    rows: list[tuple[str, str | None]] = [
        (_argument(value, notation), _comparison(condition, notation))
        for value, condition in zip(values, conditions, strict=True)
    ]
    if otherwise is not None:
        rows.append((_argument(otherwise, notation), None))
    return notation.cases(rows)


def _comparison(condition: Comparison, notation: Notation) -> str:
    parts = [_argument(condition.operands[0], notation)]
    for sign, operand in zip(condition.signs, condition.operands[1:], strict=True):
        parts += [notation.sign(_SHOWN.get(sign, sign)), _argument(operand, notation)]
    return notation.join(parts)


_SHOWN = {"<=": "≤", ">=": "≥", "!=": "≠"}


def _sum(terms: tuple[Expression, ...], notation: Notation) -> str:
    parts = [_at_least(terms[0], PRODUCT, notation)]
    for term in terms[1:]:
        if isinstance(term, Negation):
            parts += [notation.sign("-"), _at_least(term.operand, PRODUCT, notation)]
        else:
            parts += [notation.sign("+"), _at_least(term, PRODUCT, notation)]
    return notation.join(parts)


def _base(base: Expression, notation: Notation) -> str:
    text = _write(base, notation)
    loose = isinstance(base, Apply) and word_of(base.function, notation).shape != Shape.BARS
    return notation.bracket(text) if loose or _tightness(base) < ATOM else text


def word_of(function: str, notation: Notation) -> Word:
    """The word of a function."""
    return notation.vocabulary.functions[function]


def _at_least(node: Expression, level: int, notation: Notation) -> str:
    text = _write(node, notation)
    bare = notation.fractions and isinstance(node, Quotient)
    return text if bare or _tightness(node) >= level else notation.bracket(text)


def _tightness(node: Expression) -> int:
    match node:
        case Sum():
            return SUM
        case Product() | Quotient():
            return PRODUCT
        case Negation():
            return SIGNED
        case Power():
            return POWER
        case Cases() | Series() | Running() | Stretch() | Converted():
            return SUM
    return ATOM


BEHIND = (Shape.DEGREES, Shape.FACTORIAL)  # shapes whose sign stands behind


def _written_first(node: Expression, notation: Notation) -> Expression:
    """What stands first where the sign of a function stands behind it, as in 30° and 3!."""
    while isinstance(node, Apply) and word_of(node.function, notation).shape in BEHIND:
        node = node.arguments[0]
    return node


def _needs_sign(left: Expression, right: Expression, notation: Notation) -> bool:
    """Whether two factors side by side would be read as something else."""
    first = right
    while isinstance(first, Power):
        first = first.base
    if isinstance(first, Number) or isinstance(_written_first(right, notation), Number):
        return True
    last = left
    while isinstance(last, Product | Quotient):
        last = last.right if isinstance(last, Product) else last.denominator
    return isinstance(last, Name) and not isinstance(first, Name | Constant | Apply | Call)
