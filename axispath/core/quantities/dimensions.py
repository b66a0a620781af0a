"""Dimensions: powers of the SI's base units."""

from __future__ import annotations

from fractions import Fraction

from axispath.core.language.numbers import RAISED

BASES = ("m", "kg", "s", "A", "K", "mol", "cd")
Dimension = tuple[Fraction, ...]
"""The powers of the base units, in this order."""
WORDS = {
    "m": "metres",
    "kg": "kilograms",
    "s": "seconds",
    "A": "amperes",
    "K": "kelvins",
    "mol": "moles",
    "cd": "candelas",
}


def dimension(**powers: int) -> Dimension:
    """A dimension by its base units: dimension(m=1, s=-2)."""
    return tuple(Fraction(powers.get(base, 0)) for base in BASES)


NONE = dimension()


def combined(one: Dimension, other: Dimension, sign: int = 1) -> Dimension:
    """The dimension of a product, or of a quotient."""
    return tuple(a + sign * b for a, b in zip(one, other, strict=True))


def raised(one: Dimension, power: Fraction) -> Dimension:
    """The dimension of a power."""
    return tuple(a * power for a in one)


def base_text(of: Dimension) -> str:
    """Base units as they are written: kg m/s²; empty for plain numbers."""
    powers = sorted(zip(BASES, of, strict=True), key=lambda one: one[0] != "kg")
    above = [_power(base, p) for base, p in powers if p > 0]
    below = [_power(base, -p) for base, p in powers if p < 0]
    if not above:
        return " ".join(_power(base, p) for base, p in powers if p)
    under = f"/({' '.join(below)})" if len(below) > 1 else f"/{below[0]}" if below else ""
    return " ".join(above) + under


def _power(base: str, power: Fraction) -> str:
    return base if power == 1 else f"{base}{str(power).translate(RAISED).replace('/', '⁄')}"


def told(of: Dimension) -> str:
    """What a sentence calls a dimension: metres, a plain number, kg m/s²."""
    if of == NONE:
        return "a plain number"
    alone = [base for base, p in zip(BASES, of, strict=True) if p]
    if len(alone) == 1 and of[BASES.index(alone[0])] == 1:
        return WORDS[alone[0]]
    return base_text(of)
