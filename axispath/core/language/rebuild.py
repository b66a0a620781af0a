"""Trees with parts of them exchanged."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace

from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Converted,
    Expression,
    ListOf,
    MatrixOf,
    Name,
    Negation,
    Pair,
    Part,
    Power,
    Product,
    Quotient,
    Running,
    Series,
    Stretch,
    Sum,
)
from axispath.core.language.walking import free_names

Put = Callable[[Expression], Expression]


def rebuilt(node: Expression, put: Put) -> Expression:
    """A node with ``put`` of each of its direct parts."""
    match node:
        case Negation(operand):
            return Negation(put(operand))
        case Sum(terms):
            return Sum(tuple(map(put, terms)))
        case Product(left, right):
            return Product(put(left), put(right))
        case Quotient(top, bottom):
            return Quotient(put(top), put(bottom))
        case Power(base, exponent):
            return Power(put(base), put(exponent))
        case Apply(function, arguments):
            return Apply(function, tuple(map(put, arguments)))
        case Call(name, arguments, order):
            return Call(name, tuple(map(put, arguments)), order)
        case ListOf(items):
            return ListOf(tuple(map(put, items)))
        case Pair(first, second):
            return Pair(put(first), put(second))
        case Series(kind, body, index, low, high):
            return Series(kind, put(body), index, put(low), put(high))
        case MatrixOf(rows):
            return MatrixOf(tuple(tuple(map(put, row)) for row in rows))
        case Part(base, indices):
            return Part(put(base), tuple(map(put, indices)))
        case Converted(body, unit):
            return Converted(put(body), unit)
        case Stretch(low, high):
            return Stretch(put(low), put(high))
        case Running(_, body, _, ends, arguments):
            body, *parts = put(body), tuple(map(put, ends)), tuple(map(put, arguments))
            return replace(node, body=body, ends=parts[0], arguments=parts[1])
        case Cases(values, conditions, otherwise):
            tested = tuple(Comparison(tuple(map(put, c.operands)), c.signs) for c in conditions)
            rest = None if otherwise is None else put(otherwise)
            return Cases(tuple(map(put, values)), tested, rest)
    return node


def substituted(node: Expression, given: Mapping[str, Expression]) -> Expression:
    """A tree with expressions in place of names, all at once.

    Raises ValueError where the running index of a sum would catch a name that is put in.
    """
    if isinstance(node, Name):
        return given.get(node.name, node)
    if isinstance(node, Series | Running):
        inner = {name: part for name, part in given.items() if name != node.index}
        used = {one.name for part in inner.values() for one in free_names(part)}
        if node.index in used:
            raise ValueError(f"the index {node.index} is used outside its sum")
        # The body is what is rebuilt first.
        mappings = iter((inner,))
        return rebuilt(node, lambda part: substituted(part, next(mappings, given)))
    return rebuilt(node, lambda part: substituted(part, given))
