"""Places at which a function is looked at first."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray


def uneven(count: int) -> NDArray[np.float64]:
    """So many places from 0 to 1 that follow no grid: a regular one can fall into step with a fast
    oscillation, and see a slow wave that is not there.
    """
    found: NDArray[np.float64]
    found = np.linspace(0.0, 1.0, count) + np.sin(np.arange(count) * 2.399) * (0.3 / count)
    found[0], found[-1] = 0.0, 1.0
    return found
