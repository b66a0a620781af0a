"""What landmarks are called, and how sure they are."""

from __future__ import annotations

from axispath.core.search.landmark import Certainty, Kind

KIND_NAMES = {
    Kind.ZERO: "zero",
    Kind.MAXIMUM: "maximum",
    Kind.MINIMUM: "minimum",
    Kind.INFLECTION: "inflection",
    Kind.Y_INTERCEPT: "y-intercept",
    Kind.POLE: "pole",
    Kind.JUMP: "jump",
    Kind.HOLE: "hole",
    Kind.KINK: "kink",
    Kind.END: "end",
    Kind.INTERSECTION: "intersection",
    Kind.START: "start",
    Kind.MEETS_X: "on the x-axis",
    Kind.MEETS_Y: "on the y-axis",
    Kind.LEVEL: "level tangent",
    Kind.UPRIGHT: "upright tangent",
    Kind.CUSP: "cusp",
    Kind.STOP: "standstill",
    Kind.CROSSING: "crossing of itself",
    Kind.FARTHEST: "largest distance from the pole",
    Kind.NEAREST: "smallest distance from the pole",
    Kind.AT_POLE: "through the pole",
    Kind.ISOLATED: "single point",
    Kind.CORNER: "corner",
    Kind.PEAK: "highest point",
    Kind.PIT: "lowest point",
    Kind.SADDLE: "saddle",
}
CERTAINTY = {
    Certainty.PROVEN: "proven",
    Certainty.EXACT: "exact",
    Certainty.APPROACHED: "approached, not proven",
}
