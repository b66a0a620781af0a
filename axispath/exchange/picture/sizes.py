"""How large a picture is: in pixels, in centimetres on paper, or as a slide."""

from __future__ import annotations

from typing import Literal, NamedTuple

INCH = 100  # pixels of a picture at sharpness 1
Measure = Literal["pixels", "cm", "slide"]


class Size(NamedTuple):
    """Width and height in pixels, and how sharp a picture of pixels is drawn."""

    width: int
    height: int
    scale: float


USUAL = Size(1200, 750, 2.0)
# As wide as slides are; few pixels, drawn sharply, so that its lettering is large.
SLIDE = Size(960, 540, 2.0)


def sized(width: float, height: float, measure: Measure, scale: float) -> Size:
    """The size that was asked for; a slide has one of its own."""
    if measure == "slide":
        return SLIDE
    by = INCH / 2.54 if measure == "cm" else 1.0
    return Size(round(width * by), round(height * by), scale)
