"""Landmarks as a file: comma-separated values, RFC 4180."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Mapping

from axispath.core.language.numbers import full_precision
from axispath.core.path.survey import Survey
from axispath.core.search.landmark import Certainty, Kind

HEADS = ("function", "kind", "x", "y", "left limit", "right limit", "certainty", "parameters")


def landmarks_csv(
    found: Survey, kinds: Mapping[Kind, str], certainties: Mapping[Certainty, str]
) -> str:
    """All landmarks of a look at full precision; ``kinds`` and ``certainties`` name them."""
    out = io.StringIO()
    write = csv.writer(out, lineterminator="\r\n")
    write.writerow(HEADS)
    for name, path in found.named:
        for mark in path.landmarks:
            numbers = [_number(v) for v in (mark.x, mark.y, mark.left, mark.right)]
            places = [] if math.isnan(mark.t) else [mark.t, *mark.also]
            along = " ".join(full_precision(t) for t in places)
            write.writerow([name, kinds[mark.kind], *numbers, certainties[mark.certainty], along])
    return out.getvalue()


def _number(value: float) -> str:
    return full_precision(value) if math.isfinite(value) else ""
