"""Closed forms of integrals, limits and endless sums as text."""

from __future__ import annotations

from axispath.core.calculation.closed import Closing, closed_form
from axispath.core.language.numbers import decimal
from axispath.core.search.told import told


def closed_text(asked: Closing) -> str:
    """A closed form, and its decimal where that is new; empty where none is found."""
    import sympy

    value = closed_form(asked)
    if value is None:
        return ""
    text = told(sympy, value, always=True)
    if asked.near is not None:
        return text
    shown = decimal(float(value))
    return f"{text} ≈ {shown}" if text and text != shown else shown
