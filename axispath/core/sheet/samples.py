"""How many samples a lane is drawn from, to teach what sampling does."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from axispath.core.sheet.document import Document, Samples
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.measured import DataSet
from axispath.core.sheet.refused import EditRefused

MOST = 5000
FEW = 12  # samples where nothing is typed yet


def sample_amount(document: Document, samples: Samples) -> float:
    """The number of samples, or the step between them; 0 for none.

    Raises EditRefused where what is typed makes no samples.
    """
    if not samples.by:
        return 0.0
    if not samples.amount.strip():
        return float(FEW) if samples.by == "count" else 1.0
    amount = typed_end(document, samples.amount).x
    if samples.by == "step" and amount <= 0:
        raise EditRefused("The step between samples is above 0.")
    if samples.by == "count" and (amount != int(amount) or not 2 <= amount <= MOST):
        raise EditRefused(f"The number of samples is a whole number from 2 to {MOST}.")
    return amount


def bin_width(document: Document, data: DataSet, values: NDArray[np.float64]) -> float | None:
    """How wide the bins of a histogram are: as typed, or so many, or a round number of their own.

    What is typed with a # behind it is a number of bins. None where there is nothing to count.
    """
    there = values[np.isfinite(values)]
    if not len(there):
        return None
    reach = float(np.ptp(there))
    text = data.width.strip()
    try:
        given = typed_end(document, text.rstrip("#")).x if text else 0.0
    except EditRefused:  # a value that it used is gone
        given = 0.0
    if text.endswith("#") and given >= 1:
        return reach / given if reach else 1.0
    if given > 0:
        return given
    if not reach:
        return 1.0
    # H. A. Sturges 1926, The Choice of a Class Interval
    rough = reach / (1 + math.log2(len(there)))
    power = 10.0 ** math.floor(math.log10(rough))
    return next(step * power for step in (1.0, 2.0, 5.0, 10.0) if step * power >= rough * 0.999)
