"""Words of a sheet as they can stand in Python."""

from __future__ import annotations

import math

from flint import arb

from axispath.core import catalogue
from axispath.core.language.plain import plain_statement
from axispath.core.quantities.scalars import is_real, real_ball
from axispath.core.quantities.surds import Surd
from axispath.core.sheet.resolve import ResolvedLane
from axispath.exchange.script.expressions import NotWritten


def one_line(text: str) -> str:
    """Text without line breaks."""
    return " ".join(text.split())


def quoted(text: str) -> str:
    """Text as a docstring."""
    clean = one_line(text).replace("\\", "\\\\").replace('"', "'")
    return f'"""{clean}."""'


def plainly(text: str) -> str:
    """Text as a string that Matplotlib does not typeset."""
    return repr(one_line(text).replace("$", "").replace("\\", ""))


def typed(lane: ResolvedLane) -> str:
    """A lane as it was typed."""
    if lane.written is None:
        return lane.lane.text
    return plain_statement(lane.written, catalogue.VOCABULARY, lane.name)


def number_of(value: object) -> float:
    """A real number as a float64. Raises NotWritten for anything else."""
    if not isinstance(value, Surd | arb) or not is_real(value):
        raise NotWritten("it is no real number")
    found = float(real_ball(value).mid())
    if not math.isfinite(found):
        raise NotWritten("it is too large")
    return found
