"""Trees with parts of them exchanged."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Expression,
    ListOf,
    Name,
    Negation,
    Pair,
    Power,
    Product,
    Quotient,
    Series,
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
    if isinstance(node, Series):
        inner = {name: part for name, part in given.items() if name != node.index}
        used = {one.name for part in inner.values() for one in free_names(part)}
        if node.index in used:
            raise ValueError(f"the index {node.index} is used outside its sum")
        body = substituted(node.body, inner)
        ends = (substituted(end, given) for end in (node.low, node.high))
        return Series(node.kind, body, node.index, *ends)
    return rebuilt(node, lambda part: substituted(part, given))
