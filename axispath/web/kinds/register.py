"""What the register of this layer holds."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane


def nothing(lane: ResolvedLane, digits: int) -> str:
    """No note."""
    return ""


def no_more(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    """Nothing beyond what every lane has."""
    return {}


@dataclass(frozen=True, slots=True)
class Face:
    """How a lane of a kind looks on the page.

    ``template`` is its row, ``strip`` what the scripts draw in its strip, ``note`` the words below
    its line, ``more`` what its row and the scripts need beside what every lane has.
    """

    template: str
    strip: Literal["path", "slider", "curve", "point", "ticks", ""] = ""
    note: Callable[[ResolvedLane, int], str] = nothing
    more: Callable[[Document, ResolvedLane], dict[str, Any]] = no_more
