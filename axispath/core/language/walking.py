"""Walks through trees: parts, names that are free, what a node is at a glance."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator
from fractions import Fraction
from typing import Any

from axispath.core.language.tree import (
    Apply,
    Call,
    Cases,
    Comparison,
    Constant,
    Converted,
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
    UnitOf,
)
from axispath.core.memory import remembered


def _nothing(node: Any) -> tuple[Expression, ...]:
    return ()


def _of_cases(node: Any) -> tuple[Expression, ...]:
    tested = tuple(part for condition in node.conditions for part in condition.operands)
    return (*node.values, *tested, *((node.otherwise,) if node.otherwise is not None else ()))


# A look by type: walks are the most frequent work on trees.
_PARTS: dict[type, Callable[[Any], tuple[Expression, ...]]] = {
    Number: _nothing,
    Constant: _nothing,
    Name: _nothing,
    UnitOf: _nothing,
    Converted: lambda node: (node.body, node.unit),
    Negation: lambda node: (node.operand,),
    Sum: lambda node: node.terms,
    Product: lambda node: (node.left, node.right),
    Quotient: lambda node: (node.numerator, node.denominator),
    Power: lambda node: (node.base, node.exponent),
    Apply: lambda node: node.arguments,
    Call: lambda node: node.arguments,
    ListOf: lambda node: node.items,
    Pair: lambda node: (node.first, node.second),
    Series: lambda node: (node.body, node.low, node.high),
    MatrixOf: lambda node: tuple(entry for row in node.rows for entry in row),
    Part: lambda node: (node.base, *node.indices),
    Stretch: lambda node: (node.low, node.high),
    Running: lambda node: (node.body, *node.ends, *node.arguments),
    Cases: _of_cases,
}


def children(node: Expression) -> tuple[Expression, ...]:
    """The direct parts of a node, left to right."""
    return _PARTS[type(node)](node)


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


class _Same:
    """A tree as a key that is equal to itself alone: nothing in it has to be compared."""

    __slots__ = ("node",)

    def __init__(self, node: Expression) -> None:
        self.node = node

    def __hash__(self) -> int:
        return id(self.node)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Same) and other.node is self.node


@remembered(8192)
def _names_of(same: _Same) -> tuple[Name | Call, ...]:
    return tuple(free_names(same.node))


def names_in(node: Expression) -> tuple[Name | Call, ...]:
    """The free names and calls of the body of a line, which is asked again and again."""
    return _names_of(_Same(node))


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
