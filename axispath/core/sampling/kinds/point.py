"""Points in a frame: dots, joined by lines where that is wanted."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axispath.core.sampling.primitives import Dots, Primitive, Stroke
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.kinds.point import is_free, places
from axispath.core.sheet.resolve import ResolvedLane


def drawn_point(document: Document, lane: ResolvedLane, frame: Frame) -> list[Primitive]:
    """Dots at the points, relative to the view; those without a value are left out."""
    at = np.array(places(lane), dtype=np.float64).reshape(-1, 2)
    across = (at[:, 0] - frame.left) / (frame.right - frame.left)
    upwards = (at[:, 1] - frame.bottom) / (frame.top - frame.bottom)
    rows = np.stack([across, upwards], axis=1)
    rows[~np.isfinite(rows).all(axis=1)] = np.nan
    # Far outside they are as far outside as 32 bits can tell.
    drawn: NDArray[np.float32] = np.clip(rows, -50, 50).astype(np.float32)
    found: list[Primitive] = []
    if lane.lane.style.joined and len(drawn) > 1:
        found.append(Stroke(drawn))
    found.append(Dots(drawn, handle=is_free(lane), large=True))
    return found
