"""Whether what has been read so far may be followed by a unit, or should have been by one."""

from __future__ import annotations

from collections.abc import Iterable

from axispath.core.language.tree import (
    Apply,
    Call,
    Expression,
    Name,
    Negation,
    Number,
    Power,
    Product,
    Quotient,
    UnitOf,
)
from axispath.core.language.walking import walk


def ends_measured(node: Expression) -> bool:
    """Whether what is written last is a number, or a unit behind one."""
    last = node.right if isinstance(node, Product) else node
    return ends_in_unit(node) or not any(isinstance(n, Name | Call | Apply) for n in walk(last))


def ends_in_unit(node: Expression) -> bool:
    """Whether what is written last is a unit."""
    match node:
        case UnitOf():
            return True
        case Product(_, last) | Quotient(_, last):
            return ends_in_unit(last)
        case Power(base, _):
            return isinstance(base, UnitOf)
        case Negation(operand):
            return ends_in_unit(operand)
    return False


def is_unit(node: Expression) -> bool:
    """Whether something is nothing but units."""
    match node:
        case UnitOf():
            return True
        case Product(left, right) | Quotient(left, right):
            return is_unit(left) and is_unit(right)
        case Power(base, _):
            return is_unit(base)
    return False


def difference_before(left: Expression, right: Expression) -> Expression:
    """The left factor of a product or quotient: so many degrees for each minute, or any other
    unit, are a difference, and not a temperature on a scale with a zero of its own.
    """
    match left:
        case Product(amount, UnitOf(symbol)) if symbol.startswith("°") and is_unit(right):
            return Product(UnitOf(symbol), amount)
        case Negation(operand):
            return Negation(difference_before(operand, right))
    return left


def only_behind_numbers(word: str, formulas: Iterable[Expression]) -> bool:
    """Whether a name stands behind numbers and nowhere else, as a unit would."""
    nodes = [node for formula in formulas for node in walk(formula)]
    alone = sum(isinstance(node, Name) and node.name == word for node in nodes)
    behind = sum(
        isinstance(node, Product) and isinstance(node.left, Number) and node.right == Name(word)
        for node in nodes
    )
    return 0 < alone == behind
