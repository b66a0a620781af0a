"""Lists on the page."""

import math

from axispath.core.language.numbers import decimal
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face

LISTED = 8


def _note(lane: ResolvedLane, digits: int) -> str:
    items = lane.items or []
    shown = [decimal(item, digits) if math.isfinite(item) else "—" for item in items[:LISTED]]
    more = ", …" if len(items) > LISTED else ""
    count = "1 value" if len(items) == 1 else f"{len(items)} values"
    return f"{count}: {', '.join(shown)}{more}" if items else "an empty list"


LIST = Face("parts/lane.html", note=_note)
