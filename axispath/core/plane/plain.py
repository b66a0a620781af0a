"""Equations of the plane as simply as they have the same points."""

from __future__ import annotations

from collections.abc import Mapping

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.fraction import numerator
from axispath.core.arithmetic.polynomial import Coefficients, coefficients
from axispath.core.arithmetic.program import Definition, NotComputable
from axispath.core.language.tree import Expression
from axispath.core.plane.branches import DEGREE
from axispath.core.plane.polynomials import squarefree, written

PLANE = ("x", "y")


def plain(difference: Expression, definitions: Mapping[str, Definition]) -> Expression:
    """What is 0 where a difference of two sides is, without denominators.

    A polynomial has each of its factors once: where one stood twice every slope would be 0.
    """
    top = numerator(difference)
    found = polynomial(top, definitions)
    if found is None:
        return top
    part, repeated = squarefree(found)
    return written(part) if repeated else top


def polynomial(tree: Expression, definitions: Mapping[str, Definition]) -> Coefficients | None:
    """The polynomial of x and y that a formula is, up to DEGREE; None for others, and for 0."""
    try:
        return coefficients(program(tree, PLANE, definitions), DEGREE)
    except NotComputable:
        return None
