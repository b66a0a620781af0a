"""What a path consists of."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class Kind(StrEnum):
    """The kinds of landmarks found so far."""

    ZERO = "zero"
    MAXIMUM = "maximum"
    MINIMUM = "minimum"
    INFLECTION = "inflection"
    INTERSECTION = "intersection"
    Y_INTERCEPT = "y-intercept"
    END = "end"


class Certainty(StrEnum):
    """How sure a landmark is."""

    PROVEN = "proven"
    EXACT = "exact"
    APPROACHED = "approached"


@dataclass(frozen=True, slots=True)
class Landmark:
    """A point of a path.

    The true place lies within ``radius`` of ``x``, and within [``low``, ``high``], the
    bracket in which it is the only one of its kind. ``closed`` is for ends of a domain.
    """

    kind: Kind
    x: float
    y: float
    certainty: Certainty
    radius: float = 0.0
    low: float = 0.0
    high: float = 0.0
    closed: bool = True


class Reason(StrEnum):
    """Why a stretch stayed open."""

    BREAK = "break"  # the function may break there: a pole, a jump, the edge of its domain
    CLOSE = "close"  # landmarks too close together to be told apart
    BUDGET = "budget"  # more work than this search was given


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
class Path:
    """The landmarks of a function over an interval, in order, and what lies between them.

    Nothing is missing from ``landmarks`` outside the ``open`` stretches. On ``undefined``
    the function surely has no value; on ``zero`` it is identically zero.
    """

    low: float
    high: float
    landmarks: tuple[Landmark, ...]
    spans: tuple[Span, ...]
    open: tuple[Open, ...]
    undefined: tuple[Stretch, ...]
    zero: tuple[Stretch, ...]
    more: bool = False

    @property
    def complete(self) -> bool:
        """Whether every landmark of the interval is listed."""
        return not self.open and not self.more

    def of(self, *kinds: Kind) -> tuple[Landmark, ...]:
        """The landmarks of these kinds."""
        return tuple(landmark for landmark in self.landmarks if landmark.kind in kinds)
