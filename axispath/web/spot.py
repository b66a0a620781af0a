"""One place of the plane on the Reading card: functions of two variables there, and regions."""

from __future__ import annotations

from typing import Any

import numpy as np
from flask import render_template
from numpy.typing import NDArray

from axispath.core.language.numbers import decimal
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import resolve
from axispath.core.table.kinds import AT_PLACE
from axispath.core.table.kinds.register import Section, Spot
from axispath.core.table.kinds.spot import HEIGHT, WIDTH
from axispath.web.present import swatch_of

DIGITS_OF_Y = 10


def spot(document: Document, x: float, y: float) -> dict[str, Any]:
    """All lanes that say something about a place, as HTML."""
    lanes = resolve(document).shown(AT_PLACE)
    found = [AT_PLACE[lane.kind.key](document, lane, x, y) for lane in lanes]
    rows = [_row(one, document.digits) for one in found]
    html = render_template("parts/spot.html", rows=rows, width=WIDTH, height=HEIGHT)
    return {"y": y, "shown": decimal(y, DIGITS_OF_Y), "html": html}


def _row(found: Spot, digits: int) -> dict[str, Any]:
    lane = found.lane.lane
    return {
        "id": lane.id,
        "name": found.lane.name,
        "swatch": swatch_of(lane.id, lane.colour, lane.style),
        "colour": lane.colour,
        "shown": found.shown,
        "words": found.words,
        "sections": [_section(section, digits) for section in found.sections],
    }


def _section(section: Section, digits: int) -> dict[str, Any]:
    low, high, bottom, top = (decimal(end, digits) for end in section.ends)
    at = section.at
    seen = all(np.isfinite(at)) and all(0 <= share <= 1 for share in at)
    return {
        "title": section.title,
        "line": section.line,
        "path": _path(section.rows),
        "at": (at[0] * WIDTH, (1 - at[1]) * HEIGHT) if seen else None,
        "words": f"between {bottom} and {top} from {low} to {high}",
        "low": low,
        "high": high,
        "bottom": bottom,
        "top": top,
    }


def _path(rows: NDArray[np.float32]) -> str:
    """Strokes as the path of an SVG."""
    pieces, pen = [], "M"
    for across, upwards in rows.tolist():
        if not (np.isfinite(across) and np.isfinite(upwards)):
            pen = "M"
            continue
        pieces.append(f"{pen}{across * WIDTH:.1f} {(1 - upwards) * HEIGHT:.1f}")
        pen = "L"
    return "".join(pieces)
