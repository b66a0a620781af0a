"""The register of the kinds of lanes.

A lane is of the first kind that recognises it. What lanes of a kind can do stands in the registers
of the other layers, under the kind's key: drawing in ``core/sampling/kinds``, searching and framing
in ``core/path/kinds``, reading, words and columns in ``core/table/kinds``, the strip in
``web/kinds``.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.sheet.kinds.curve import PARAMETRIC, POLAR
from axispath.core.sheet.kinds.data import DATA
from axispath.core.sheet.kinds.equations import EQUATIONS
from axispath.core.sheet.kinds.for_lines import FOR_LINES
from axispath.core.sheet.kinds.function import FUNCTION
from axispath.core.sheet.kinds.kind import Kind
from axispath.core.sheet.kinds.list_of_values import LIST
from axispath.core.sheet.kinds.map import MAP
from axispath.core.sheet.kinds.number import NUMBER
from axispath.core.sheet.kinds.point import POINT
from axispath.core.sheet.kinds.relation import REGION, RELATION
from axispath.core.sheet.kinds.resting import RESTING
from axispath.core.sheet.kinds.several import SEVERAL
from axispath.core.sheet.kinds.value import VALUE
from axispath.core.sheet.kinds.waiting import WAITING
from axispath.core.sheet.kinds.wrong import WRONG

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane

__all__ = ["KINDS", "Kind", "kind_of"]

KINDS = (
    DATA,
    RESTING,
    EQUATIONS,
    WRONG,
    WAITING,
    FOR_LINES,
    PARAMETRIC,
    POLAR,
    RELATION,
    REGION,
    POINT,
    FUNCTION,
    MAP,
    SEVERAL,
    NUMBER,
    LIST,
    VALUE,
)


def kind_of(lane: ResolvedLane) -> Kind:
    """The kind of a lane."""
    return next(kind for kind in KINDS if kind.recognised(lane))
