"""The degree sign and the constants."""

from __future__ import annotations

import numpy as np
from flint import arb

from axispath.core.catalogue.entry import Angle, Entry
from axispath.core.language.vocabulary import Shape, Word

DEGREES = Entry(
    Word("degrees", shape=Shape.DEGREES),
    "So many degrees, whatever the angle unit of the sheet, written 30°.",
    "sin(30°)",
    np.deg2rad,
    lambda x: x * (arb.pi() / arb(180)),
    ("degrees(1)",),
    angle=Angle.ARGUMENT,
    value_in_degrees=lambda x: x,
    ball_in_degrees=lambda x: x,
    exact=lambda sp, x: x * sp.pi / 180,
)
