"""Whether an exact form, read as a line of the sheet it is shown on, is its number."""

from __future__ import annotations

from flint import arb

from axispath.core import catalogue
from axispath.core.arithmetic.balls import constant_ball, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.program import NotComputable
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.language.errors import LanguageError
from axispath.core.language.statement import parse_expression

BITS = 300
AGREED = 200  # bits in which both have to be the same


def reads_back(text: str, unit: AngleUnit, digits: str) -> bool:
    """Whether a text is a number with these decimal digits, of which there are at least 70."""
    try:
        plan = program(parse_expression(text, catalogue.SCOPE))
    except (LanguageError, NotComputable):
        return False
    with precision(BITS):
        found, wanted = constant_ball(plan, unit), arb(digits)
        if not found.is_finite():
            return False
        off = abs(found - wanted)
        return bool(off < (abs(wanted) + 1) * arb(2) ** -AGREED)
