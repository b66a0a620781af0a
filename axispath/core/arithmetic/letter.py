"""Formulas by the powers of one letter in them, up to the second."""

from __future__ import annotations

from axispath.core.arithmetic.simplest import ONE, ZERO, negation, sum_of, times
from axispath.core.language.tree import (
    Expression,
    Name,
    Negation,
    Power,
    Product,
    Quotient,
    Sum,
)
from axispath.core.language.walking import free_names, literal

DEGREE = 2
Powers = list[Expression]
"""What stands with 1, y and y²."""


def over(top: Expression, bottom: Expression) -> Expression:
    """A quotient, without a denominator of 1 or −1."""
    value = literal(bottom)
    if value == 1:
        return top
    if value == -1:
        return opposite(top)
    return Quotient(top, bottom)


def opposite(node: Expression) -> Expression:
    """The negative of a formula; of a sum term by term, those without a minus first."""
    if isinstance(node, Negation):
        return node.operand
    if not isinstance(node, Sum):
        return negation(node)
    terms = [negation(term) for term in node.terms]
    return sum_of(sorted(terms, key=lambda term: isinstance(term, Negation)))


def uses(letter: str, node: Expression) -> bool:
    """Whether a letter occurs in a formula."""
    return any(isinstance(name, Name) and name.name == letter for name in free_names(node)) or any(
        uses(letter, part)
        for call in free_names(node)
        if not isinstance(call, Name)
        for part in call.arguments
    )


def powers_of(letter: str, node: Expression) -> Powers | None:
    """A formula by the powers of a letter, up to the second; None where it is not of that form."""
    if not uses(letter, node):
        return [node]
    match node:
        case Name(name) if name == letter:
            return [ZERO, ONE]
        case Negation(operand):
            inner = powers_of(letter, operand)
            return None if inner is None else [negation(part) for part in inner]
        case Sum(terms):
            parts = [powers_of(letter, term) for term in terms]
            known = [part for part in parts if part is not None]
            if len(known) < len(parts):
                return None
            return [
                sum_of([part[k] for part in known if k < len(part)])
                for k in range(max(map(len, known)))
            ]
        case Product(left, right):
            return _product(powers_of(letter, left), powers_of(letter, right))
        case Quotient(top, bottom) if not uses(letter, bottom):
            inner = powers_of(letter, top)
            return None if inner is None else [p if p == ZERO else over(p, bottom) for p in inner]
        case Power(base, exponent) if literal(exponent) == DEGREE:
            inner = powers_of(letter, base)
            return _product(inner, inner)
    return None


def _product(left: Powers | None, right: Powers | None) -> Powers | None:
    if left is None or right is None or len(left) + len(right) - 2 > DEGREE:
        return None
    found: list[list[Expression]] = [[] for _ in range(len(left) + len(right) - 1)]
    for i, a in enumerate(left):
        for j, b in enumerate(right):
            found[i + j].append(times(a, b))
    return [sum_of(terms) for terms in found]
