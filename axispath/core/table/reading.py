"""All lanes read at one x: values, slopes, the tangent; differences and areas to a second x."""

from __future__ import annotations

import math

from axispath.core.language.numbers import MINUS, decimal, full_precision
from axispath.core.path.area import Area, NoArea, area
from axispath.core.path.lanes import difference
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.table.kinds import OVER_X, READ
from axispath.core.table.kinds.register import Read


def read(document: Document, x: float) -> list[Read]:
    """The visible lanes at ``x``."""
    return [READ[lane.kind.key](document, lane, x) for lane in resolve(document).shown(READ)]


def tangent_words(found: Read, x: float, digits: int) -> str:
    """The equation of the tangent, or why there is none."""
    if not found.defined:
        return f"no tangent: {found.reason}"
    if not math.isfinite(found.slope):
        return "no tangent here: the curve bends sharply, breaks or rises straight up"
    return f"y = {_line(found.slope, x, found.y, digits)}"


def tangent_line(found: Read, x: float) -> str:
    """The tangent as a line of the sheet, which follows the function when it is changed."""
    name = found.lane.name
    at = full_precision(x)
    return f"{name}({at}) + {name}'({at}) (x - {at})".replace("- -", "+ ")


def _line(slope: float, x: float, y: float, digits: int) -> str:
    """m x + c, as it is written by hand."""
    noise = (abs(y) + abs(slope * x)) * 4e-16
    constant = y - slope * x
    level = decimal(constant, digits, noise)
    if slope == 0:
        return level
    factor = {"1": "", f"{MINUS}1": MINUS}.get(text := decimal(slope, digits), f"{text} ")
    if level == "0":
        return f"{factor}x"
    sign = MINUS if constant < 0 else "+"
    return f"{factor}x {sign} {level.removeprefix(MINUS)}"


def area_between(document: Document, lane_id: str, against: str, low: float, high: float) -> Area:
    """The area under a lane, or between two; raises NoArea or EditRefused with a sentence."""
    sheet = resolve(document)
    lane, other = sheet.lane(lane_id), sheet.lane(against) if against else None
    if lane is None or not lane.can(OVER_X) or (against and not (other and other.can(OVER_X))):
        raise EditRefused("This lane has no curve to take an area from.")
    for one in (lane, other):
        ends = one.ends if one is not None else (None, None)
        beyond = (ends[0] and ends[0].x > low) or (ends[1] and ends[1].x < high)
        if one is not None and beyond:
            raise NoArea(f"The readings lie outside the domain of {one.name}.")
    plan = lane.program if other is None else difference(lane, other)
    return area(plan, lane.unit, low, high)


def area_words(found: Area, digits: int, against: bool) -> list[str]:
    """What the area comes to, in one or two sentences."""
    sure = "proven" if found.proven else "computed, not proven"
    whole = decimal(found.whole, digits, found.whole_error)
    lines = [f"area {whole} ({sure})"]
    if abs(found.signed - found.whole) > found.signed_error + found.whole_error:
        signed = decimal(found.signed, digits, found.signed_error)
        less = "where the second curve is higher" if against else "below the axis"
        lines.append(f"integral {signed}, counting what is {less} as negative")
    return lines
