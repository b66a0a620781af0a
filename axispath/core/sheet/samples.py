"""How many samples a lane is drawn from, to teach what sampling does."""

from __future__ import annotations

from axispath.core.sheet.document import Document, Samples
from axispath.core.sheet.ends import typed_end
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
