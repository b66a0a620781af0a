"""What a kind of lane is, as far as the sheet knows it; other layers have their own registers."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

if TYPE_CHECKING:
    from axispath.core.sheet.resolve import ResolvedLane


def by_name(lane: ResolvedLane) -> str:
    """A lane called by its name alone."""
    return lane.name or ""


def no_trouble(lane: ResolvedLane) -> str | None:
    """Nothing can be wrong beyond what the language sees."""
    return None


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of lane.

    ``key`` is its name in every register, ``called`` what a sentence calls a lane of it;
    ``coloured`` says whether its lanes take a colour of the palette, ``domain`` whether they can
    have one, ``figure`` whether they are figures that equal scale suits, ``alone`` if only where
    nothing else is drawn, and ``grid`` what grid
    suits them beside the usual one. ``recognised`` tells a lane of this kind among those that no
    kind before it took; ``trouble`` what is wrong with a lane that can be read, or None;
    ``signature`` how it is used.
    """

    key: str
    called: str
    recognised: Callable[[ResolvedLane], bool]
    coloured: bool = False
    domain: bool = False
    figure: bool = False
    alone: bool = False
    grid: Literal["", "polar"] = ""
    trouble: Callable[[ResolvedLane], str | None] = no_trouble
    signature: Callable[[ResolvedLane], str] = by_name
