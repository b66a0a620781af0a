"""Landmarks under a cover: taken out of every path before it goes anywhere.

What lies between landmarks would tell where they are, so it goes with them.
"""

from __future__ import annotations

from dataclasses import replace

from axispath.core.search.landmark import GROUP_OF, Kind, Landmark, Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Found

SAME = 1e-9  # share of a place within which a landmark that was found is known again


def is_same(found: Found, key: str, mark: Landmark) -> bool:
    """Whether what was found is this landmark of a lane or pair."""
    if found.key != key or found.kind != mark.kind.value:
        return False
    if abs(found.x - mark.x) > mark.radius + SAME * max(1.0, abs(mark.x)):
        return False
    if found.y is None or not abs(mark.y) < 1e300:
        return True
    return abs(found.y - mark.y) <= mark.y_radius + SAME * max(1.0, abs(mark.y))


def is_covered(document: Document, key: str, kind: Kind) -> bool:
    """Whether landmarks of a kind of a lane, or of a pair “a+b”, are under the cover."""
    return document.cover.covers(GROUP_OF[kind], tuple(key.split("+")))


def uncovered(document: Document, key: str, path: Path) -> Path:
    """What may be seen of a path: all of it where nothing of it is covered."""
    kinds = {kind for kind in Kind if is_covered(document, key, kind)}
    if not kinds:
        return path
    seen = tuple(
        mark
        for mark in path.landmarks
        if mark.kind not in kinds or any(is_same(one, key, mark) for one in document.found)
    )
    seen = tuple(replace(mark, whole=False, extremes=()) for mark in seen)
    return Path(
        path.low,
        path.high,
        seen,
        spans=(),
        open=(),
        undefined=() if Kind.END in kinds else path.undefined,
        zero=(),
        proven=path.proven,
        covered=True,
    )
