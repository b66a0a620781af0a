"""Figures denser than pixels: where lines lie side by side without a gap they are a shade.

Strokes closer together than pixels make patterns that are not there. Cells of a coarse grid that
are crossed from side to side so often that no ground shows are filled evenly in their place.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

CELL = 6.0  # pixels
FULL = 4.0  # lengths of a cell that the lines in it have together, from which on it is full
LEAST = 20_000  # pixels of line, below which nothing can be dense
NO_BAND = np.empty((0, 4), dtype=np.float32)


def shaded(
    x: Floats, y: Floats, width: int, height: int
) -> tuple[Floats, Floats, NDArray[np.float32]]:
    """The line without its dense parts, and these as bands, for a line in pixels."""
    with np.errstate(invalid="ignore"):
        steps = np.hypot(np.diff(x), np.diff(y))
    steps[~np.isfinite(steps)] = 0.0
    inside = (x >= 0) & (x <= width) & (y >= 0) & (y <= height)
    steps[~(inside[:-1] & inside[1:])] = 0.0
    if float(steps.sum()) < LEAST:
        return x, y, NO_BAND
    columns, rows = int(np.ceil(width / CELL)), int(np.ceil(height / CELL))
    at = _cells((x[:-1] + x[1:]) / 2, (y[:-1] + y[1:]) / 2, columns, rows)
    lengths = np.bincount(at[steps > 0], steps[steps > 0], minlength=columns * rows)
    full = _smoothed(lengths.reshape(columns, rows)) >= FULL * CELL
    if not full.any():
        return x, y, NO_BAND
    own = full.ravel()[_cells(x, y, columns, rows)] & inside
    # Samples within a shade go, but for those at its edge, so that lines reach into it.
    gone = own.copy()
    gone[1:] &= own[:-1]
    gone[:-1] &= own[1:]
    return np.where(gone, np.nan, x), np.where(gone, np.nan, y), _bands(full, width, height)


def _cells(x: Floats, y: Floats, columns: int, rows: int) -> NDArray[np.int64]:
    with np.errstate(invalid="ignore"):
        column = np.nan_to_num(np.floor(x / CELL), nan=0.0)
        row = np.nan_to_num(np.floor(y / CELL), nan=0.0)
    column = np.clip(column, 0, columns - 1)
    found: NDArray[np.int64] = (column * rows + np.clip(row, 0, rows - 1)).astype(np.int64)
    return found


def _smoothed(lengths: NDArray[Any]) -> Floats:
    """Each cell with its neighbours, so that single full cells do not flicker."""
    padded = np.pad(lengths, 1, mode="edge")
    total = sum(
        padded[1 + i : padded.shape[0] - 1 + i, 1 + j : padded.shape[1] - 1 + j]
        for i in (-1, 0, 1)
        for j in (-1, 0, 1)
    )
    smooth: Floats = np.asarray(total) / 9
    return smooth


def _bands(full: NDArray[np.bool_], width: int, height: int) -> NDArray[np.float32]:
    """Runs of full cells, column by column, as bands relative to the view."""
    found = []
    for column, cells in enumerate(full):
        edges = np.flatnonzero(np.diff(np.concatenate([[False], cells, [False]]).astype(np.int8)))
        left, right = column * CELL / width, min((column + 1) * CELL / width, 1.0)
        for low, high in edges.reshape(-1, 2):
            bottom, top = low * CELL / height, min(high * CELL / height, 1.0)
            found += [[left, bottom, left, top], [right, bottom, right, top], [np.nan] * 4]
    return np.array(found, dtype=np.float32).reshape(-1, 4)
