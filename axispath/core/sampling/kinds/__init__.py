"""The register of how lanes of each kind are drawn."""

from __future__ import annotations

from collections.abc import Callable

from axispath.core.arithmetic.patience import Patience, limited
from axispath.core.sampling.kinds.curve import drawn_curve
from axispath.core.sampling.kinds.data import drawn_data
from axispath.core.sampling.kinds.function import drawn_function, drawn_in_states
from axispath.core.sampling.kinds.map import drawn_map
from axispath.core.sampling.kinds.point import drawn_point
from axispath.core.sampling.kinds.relation import drawn_region, drawn_relation
from axispath.core.sampling.primitives import Primitive
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.states import States

Draw = Callable[[Document, ResolvedLane, Frame], list[Primitive]]

DRAWN: dict[str, Draw] = {
    "function": drawn_function,
    "parametric": drawn_curve,
    "polar": drawn_curve,
    "point": drawn_point,
    "map": drawn_map,
    "relation": drawn_relation,
    "region": drawn_region,
    "data": drawn_data,
}
"""How a lane is drawn in a frame, by the key of its kind; kinds without an entry are not drawn."""

DRAWN_IN_STATES: dict[
    str, Callable[[States, ResolvedLane, Frame], list[list[Primitive]] | None]
] = {"function": drawn_in_states}
"""How lanes of a kind are drawn in many states at once: one picture a state, or None where they
have nothing in common. Lanes of other kinds are drawn state by state.
"""


def drawn(
    document: Document, lane: ResolvedLane, frame: Frame, patience: Patience | None = None
) -> list[Primitive]:
    """A lane's picture. Raises OutOfTime where it takes longer than ``patience``."""
    with limited(patience):
        return DRAWN[lane.kind.key](document, lane, frame)
