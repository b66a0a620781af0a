"""Whether a place belongs to a region: exactly where that can be had, else by enclosures."""

from __future__ import annotations

from fractions import Fraction

import numpy as np

from axispath.core.arithmetic.boxes import Boxes, between
from axispath.core.arithmetic.comparing import COMPARED
from axispath.core.arithmetic.rationals import Exact, exact_registers
from axispath.core.plane.relation import Relation, Side, known


def belongs(relation: Relation, x: float | Fraction, y: float | Fraction) -> bool | None:
    """Whether a place belongs; None where its sides are too close to equal to tell."""
    if relation.rule is None:
        return None
    told = [_side(side, x, y) for side in relation.sides]
    yes, no = ([np.array([one is answer]) for one in told] for answer in (True, False))
    surely, never = known(relation.rule, yes, no)
    return True if surely[0] else False if never[0] else None


def _side(side: Side, x: float | Fraction, y: float | Fraction) -> bool | None:
    exact = exact_registers(
        side.plan, side.unit, *(Exact(Fraction(v), Fraction(0)) for v in (x, y))
    )
    found = exact[side.plan.result]
    if found is not None and not found.turns:
        return bool(COMPARED[side.sign](found.rational, 0))
    at = [_around(value) for value in (x, y)]
    yes, no = side.known(side.whole(at[0], at[1]))
    return True if yes[0] else False if no[0] else None


def _around(value: float | Fraction) -> Boxes:
    """The smallest interval of float64 that holds a number."""
    near = float(value)
    off = near != value
    low, high = (np.nextafter(near, way) if off else near for way in (-np.inf, np.inf))
    return between(np.array([low]), np.array([high]))
