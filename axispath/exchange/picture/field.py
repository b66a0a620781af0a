"""Where the plot lies on the paper, and the mapping from the view to it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axispath.core.sampling.view import Frame


@dataclass(frozen=True, slots=True)
class PlotField:
    """A rectangle of the paper in pixels that shows a frame."""

    left: float
    top: float
    frame: Frame

    @property
    def right(self) -> float:
        """The right edge."""
        return self.left + self.frame.width

    @property
    def bottom(self) -> float:
        """The lower edge."""
        return self.top + self.frame.height

    def px(self, x: float) -> float:
        """The pixel column of an x."""
        frame = self.frame
        return self.left + (x - frame.left) / (frame.right - frame.left) * frame.width

    def py(self, y: float) -> float:
        """The pixel row of a y."""
        frame = self.frame
        return self.top + (frame.top - y) / (frame.top - frame.bottom) * frame.height

    def pixels(self, relative: NDArray[np.float32]) -> NDArray[np.float64]:
        """Pairs relative to the view as pixels, shape (n, 2)."""
        shares = relative.astype(np.float64)
        return np.stack(
            [
                self.left + shares[:, 0] * self.frame.width,
                self.top + (1 - shares[:, 1]) * self.frame.height,
            ],
            axis=1,
        )

    def holds(self, px: float, py: float, by: float = 0.0) -> bool:
        """Whether a pixel is in the field, ``by`` pixels around it included."""
        across = self.left - by <= px <= self.right + by
        return across and self.top - by <= py <= self.bottom + by
