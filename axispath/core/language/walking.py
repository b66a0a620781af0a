"""Walks through trees: parts, names that are free, what a node is at a glance."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from fractions import Fraction

from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Constant,
    Expression,
    ListOf,
    MatrixOf,
    Name,
    Negation,
    Number,
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


def children(node: Expression) -> tuple[Expression, ...]:
    """The direct parts of a node, left to right."""
    match node:
        case Number() | Constant() | Name():
            return ()
        case Negation(operand):
            return (operand,)
        case Sum(terms):
            return terms
        case Product(left, right) | Quotient(left, right) | Power(left, right):
            return (left, right)
        case Apply(_, arguments) | Call(_, arguments):
            return arguments
        case ListOf(items):
            return items
        case Pair(first, second):
            return (first, second)
        case Series(_, body, _, low, high):
            return (body, low, high)
        case MatrixOf(rows):
            return tuple(entry for row in rows for entry in row)
        case Part(base, indices):
            return (base, *indices)
        case Stretch(low, high):
            return (low, high)
        case Running(_, body, _, ends, arguments):
            return (body, *ends, *arguments)
        case Cases(values, conditions, otherwise):
            tested = tuple(part for condition in conditions for part in condition.operands)
            return (*values, *tested, *((otherwise,) if otherwise is not None else ()))


def free_names(node: Expression) -> Iterator[Name | Call]:
    """The names and calls in a tree, without the running index of sums and products."""
    pending: list[tuple[Expression, frozenset[str]]] = [(node, frozenset())]
    while pending:
        current, bound = pending.pop()
        if isinstance(current, Call) or (isinstance(current, Name) and current.name not in bound):
            yield current
        if isinstance(current, Series | Running):
            inner = bound | {current.index}
            body, *rest = children(current)
            pending += [*((part, bound) for part in reversed(rest)), (body, inner)]
        else:
            pending.extend((part, bound) for part in reversed(children(current)))


def walk(node: Expression) -> Iterator[Expression]:
    """Every node of the tree, parents first."""
    pending = [node]
    while pending:
        current = pending.pop()
        yield current
        pending.extend(reversed(children(current)))


def coordinates(node: Expression) -> tuple[Expression, Expression] | None:
    """The two coordinates of a point, or of a list of points as two lists; None for others."""
    if isinstance(node, Pair):
        return node.first, node.second
    if isinstance(node, ListOf) and node.items and isinstance(node.items[0], Pair):
        points = [item for item in node.items if isinstance(item, Pair)]
        firsts, seconds = (p.first for p in points), (p.second for p in points)
        return ListOf(tuple(firsts)), ListOf(tuple(seconds))
    return None


def differences(comparison: Comparison) -> tuple[Expression, ...]:
    """The left less the right for each sign of a comparison."""
    pairs = itertools.pairwise(comparison.operands)
    return tuple(
        left if right == Number("0") else Sum((left, Negation(right))) for left, right in pairs
    )


def literal(node: Expression) -> Fraction | None:
    """The exact value of a number written out, with signs and one division, else None."""
    match node:
        case Number():
            return node.value
        case Negation(operand):
            inner = literal(operand)
            return None if inner is None else -inner
        case Quotient(Number() as top, Number() as bottom) if bottom.value:
            return top.value / bottom.value
        case Quotient(Negation(Number() as top), Number() as bottom) if bottom.value:
            return -top.value / bottom.value
    return None
