"""Methods of solving an equation step by step, to be watched: they may fail, and then say why.

One entry each, in the order in which they are offered. As taught: R. L. Burden and J. D. Faires
2011, Numerical Analysis, chapter 2.
"""

from __future__ import annotations

from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.methods.bisection import BISECTION
from axispath.core.solve.methods.fixed_point import FIXED_POINT
from axispath.core.solve.methods.newton import NEWTON
from axispath.core.solve.methods.secant import SECANT
from axispath.core.solve.methods.way import Run, Way
from axispath.core.solve.question import Question

METHODS: dict[str, Way] = {way.name: way for way in (NEWTON, BISECTION, SECANT, FIXED_POINT)}


def run(question: Question, way: Way, start: float, second: float | None) -> Run:
    """Carry a method out from its starts. Raises EditRefused where it cannot begin."""
    if not question.is_equation:
        raise EditRefused("These methods solve equations; this is an inequality.")
    return way.run(question, start, second)
