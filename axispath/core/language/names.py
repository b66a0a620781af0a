"""Names as they are shown."""

from __future__ import annotations

LOWERED = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")


def lowered(name: str) -> str:
    """A name with the number behind its bar as an index: fit_2 as fit₂."""
    stem, bar, number = name.rpartition("_")
    return f"{stem}{number.translate(LOWERED)}" if bar and stem and number.isdigit() else name
