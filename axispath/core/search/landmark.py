"""What a path consists of."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from axispath.core.arithmetic.program import Program
from axispath.core.arithmetic.rationals import Exact


class Kind(StrEnum):
    """The kinds of landmarks."""

    ZERO = "zero"
    MAXIMUM = "maximum"
    MINIMUM = "minimum"
    INFLECTION = "inflection"
    INTERSECTION = "intersection"
    Y_INTERCEPT = "y-intercept"
    POLE = "pole"
    JUMP = "jump"
    HOLE = "hole"
    KINK = "kink"
    END = "end"
    # of curves along which a parameter runs
    START = "start"
    MEETS_X = "meets-x"
    MEETS_Y = "meets-y"
    LEVEL = "level-tangent"
    UPRIGHT = "upright-tangent"
    CUSP = "cusp"
    STOP = "stop"
    CROSSING = "self-crossing"
    FARTHEST = "farthest"
    NEAREST = "nearest"
    AT_POLE = "at-the-pole"
    # of relations and regions
    ISOLATED = "single-point"
    CORNER = "corner"
    # of functions of two variables
    PEAK = "peak"
    PIT = "pit"
    SADDLE = "saddle"


BREAKS = (Kind.POLE, Kind.JUMP, Kind.HOLE, Kind.KINK, Kind.END)
GROUPS: dict[str, tuple[Kind, ...]] = {
    "zeros": (Kind.ZERO,),
    "turning points": (Kind.MAXIMUM, Kind.MINIMUM),
    "inflections": (Kind.INFLECTION,),
    "breaks": BREAKS,
    "y-intercept": (Kind.Y_INTERCEPT,),
    "intersections": (Kind.INTERSECTION,),
}
CURVE_GROUPS: dict[str, tuple[Kind, ...]] = {
    "start and end": (Kind.START, Kind.END),
    "on the axes": (Kind.MEETS_X, Kind.MEETS_Y),
    "turns": (Kind.LEVEL, Kind.UPRIGHT),
    "cusps": (Kind.CUSP, Kind.STOP),
    "crossings of itself": (Kind.CROSSING,),
    "breaks": (Kind.POLE, Kind.JUMP, Kind.HOLE, Kind.KINK),
}
POLAR_GROUPS: dict[str, tuple[Kind, ...]] = {
    **CURVE_GROUPS,
    "distances from the pole": (Kind.FARTHEST, Kind.NEAREST, Kind.AT_POLE),
}
RELATION_GROUPS: dict[str, tuple[Kind, ...]] = {
    "on the axes": (Kind.MEETS_X, Kind.MEETS_Y),
    "turns": (Kind.LEVEL, Kind.UPRIGHT),
    "crossings of itself": (Kind.CROSSING,),
    "cusps": (Kind.CUSP,),
    "single points": (Kind.ISOLATED,),
    "breaks": (Kind.KINK,),
}
REGION_GROUPS: dict[str, tuple[Kind, ...]] = {"corners": (Kind.CORNER,)}
MAP_GROUPS: dict[str, tuple[Kind, ...]] = {
    "highest and lowest": (Kind.PEAK, Kind.PIT),
    "saddles": (Kind.SADDLE,),
}
"""Landmarks as they are listed together, and shown or left out together."""
GROUP_OF = {
    kind: group
    for groups in (POLAR_GROUPS, GROUPS, RELATION_GROUPS, REGION_GROUPS, MAP_GROUPS)
    for group, kinds in groups.items()
    for kind in kinds
}


class Certainty(StrEnum):
    """How sure a landmark is."""

    PROVEN = "proven"
    EXACT = "exact"
    APPROACHED = "approached"


class Method(StrEnum):
    """How a landmark was found."""

    CROSSING = "crossing"  # a change of sign, narrowed by interval Newton
    EXACT = "exact"  # exact arithmetic at a simple place
    TOUCH = "touch"  # zero as far as can be told, without a change of sign
    FACTOR = "factor"  # a factor changes sign
    VALUE = "value"  # a value computed at a place that is known
    SCAN = "scan"  # seen by a scan in floating point while something moves
    PAIR = "pair"  # two equations in two unknowns, by the Krawczyk operator
    ELIMINATION = "elimination"  # two polynomials, by their resultant
    SIDES = "sides"  # what the function does on both sides of a place where it may break


@dataclass(frozen=True, slots=True)
class Common:
    """Two programs of x and y that are both 0 at just one place between ``low`` and ``high`` along
    x and between ``bottom`` and ``top`` along y.
    """

    first: Program
    second: Program
    low: float
    high: float
    bottom: float
    top: float


@dataclass(frozen=True, slots=True)
class Landmark:
    """A point of a path.

    The true place lies within ``radius`` of the number that ``x`` is the nearest float64 of, and
    within [``low``, ``high``], the bracket in which it is the only one of its kind; ``y`` and
    ``y_radius`` tell the true height in the same way. At a break ``left`` and ``right`` are the
    one-sided limits, ±∞ at a pole and NaN where a side has no function, and ``y`` is the value
    there, the missing value of a hole or the limit at an end; it is NaN at a pole and where there
    is none. ``closed`` tells whether the function has the value ``y`` there. ``whole`` marks the
    largest and the smallest value over the interval. ``exact`` is the place itself where it is
    known exactly; ``of`` says what is 0 there and nowhere else between ``low`` and ``high``: a
    program, or a derivative of it.

    On a curve ``t`` is the parameter, and ``low``, ``high``, ``exact`` and ``t_radius`` are about
    it; ``also`` are further parameters at which the curve is there. ``extremes`` says of which
    directions it is the outermost point. On a map ``z`` is the value. ``pair`` is what is 0 there
    and nowhere else in a box of the plane.
    """

    kind: Kind
    x: float
    y: float
    certainty: Certainty
    radius: float = 0.0
    low: float = 0.0
    high: float = 0.0
    closed: bool = True
    y_radius: float = 0.0
    method: Method = Method.CROSSING
    left: float = float("nan")
    right: float = float("nan")
    whole: bool = False
    exact: Exact | None = None
    of: tuple[Program, int] | None = field(default=None, compare=False, repr=False)
    pair: Common | None = field(default=None, compare=False, repr=False)
    t: float = float("nan")
    t_radius: float = 0.0
    also: tuple[float, ...] = ()
    extremes: tuple[str, ...] = ()
    z: float = float("nan")
    z_radius: float = 0.0


class Reason(StrEnum):
    """Why a stretch stayed open."""

    BREAK = "break"  # the function may break there, in a way that could not be settled
    CLOSE = "close"  # landmarks too close together to be told apart
    BUDGET = "budget"  # more work than this search was given
    MANY = "many"  # one after the other was found, without an end
    OVERLAP = "overlap"  # parts of curves seem to lie on one another


@dataclass(frozen=True, slots=True)
class Open:
    """A stretch about which nothing is claimed."""

    low: float
    high: float
    reason: Reason


@dataclass(frozen=True, slots=True)
class Span:
    """A stretch between neighbouring landmarks: one sign, one direction, one bend.

    Each is −1, 0 or 1: below or above zero, falling or rising, bent down or up.
    """

    low: float
    high: float
    sign: int
    direction: int
    bend: int


@dataclass(frozen=True, slots=True)
class Stretch:
    """An interval of x without further claims."""

    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Cell:
    """A place (``low`` and ``high`` the same) or the open stretch between two neighbouring places.

    ``sign`` is that of all values there: −1, 0 or 1; None where the function has none.
    """

    low: float
    high: float
    sign: int | None


@dataclass(frozen=True, slots=True)
class Count:
    """How many points of a relation lie over each x of a stretch, within the view."""

    low: float
    high: float
    many: int


@dataclass(frozen=True, slots=True)
class Undefined:
    """A stretch on which the function surely has no value, and why."""

    low: float
    high: float
    why: str = ""


@dataclass(frozen=True, slots=True)
class SharedCurve:
    """A curve that two lanes have in common, as text; ``whole`` is 0 where each of them has more,
    1 where it is all of the first, 2 all of the second, and 3 all of both.
    """

    equation: str
    whole: int


@dataclass(frozen=True, slots=True)
class Path:
    """The landmarks of a function over an interval, in order, and what lies between them.

    Nothing is missing from ``landmarks`` outside the ``open`` stretches. On ``undefined``
    the function surely has no value; on ``zero`` it is identically zero; ``flat`` are stretches
    on which it is constant. ``cells`` take the interval apart into places and stretches of one
    sign, with gaps where that is not known; only searches that ask for them have any. ``counts``
    are those of relations. No single point of a ``shared`` curve is a landmark. Where some
    landmarks are ``covered`` nothing is told of the rest.
    """

    low: float
    high: float
    landmarks: tuple[Landmark, ...]
    spans: tuple[Span, ...]
    open: tuple[Open, ...]
    undefined: tuple[Undefined, ...]
    zero: tuple[Stretch, ...]
    flat: tuple[Stretch, ...] = ()
    cells: tuple[Cell, ...] = ()
    more: bool = False
    proven: bool = True
    counts: tuple[Count, ...] = ()
    covered: bool = False
    shared: SharedCurve | None = None

    @property
    def complete(self) -> bool:
        """Whether every landmark of the interval is listed, for certain."""
        return self.proven and not self.open and not self.more and not self.covered

    def of(self, *kinds: Kind) -> tuple[Landmark, ...]:
        """The landmarks of these kinds."""
        return tuple(landmark for landmark in self.landmarks if landmark.kind in kinds)
