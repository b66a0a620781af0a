"""What the catalogue knows of one function."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum
from typing import Any

from axispath.core.catalogue.parts import AtGuard, Chosen, Part
from axispath.core.language.vocabulary import Word


class Angle(Enum):
    """Whether a function takes an angle, gives one, or has nothing to do with angles."""

    NONE = "none"
    ARGUMENT = "argument"
    RESULT = "result"


@dataclass(frozen=True, slots=True)
class Entry:
    """A built-in function.

    ``value`` maps float64 arrays (or scalars) to the same, NaN outside the domain, in
    radians. ``ball`` maps arb or arb_series to a rigorous enclosure in radians, raises
    OutsideDomain where the argument is surely outside and returns NaN where it may be.
    ``value_in_degrees`` and ``ball_in_degrees`` do the same for arguments in degrees.
    ``exact`` maps the SymPy module and exact arguments, in radians, to an exact expression.
    ``derivatives`` holds, per argument, the partial derivative as text in the language.
    ``needs`` completes "… is defined only where"; empty if defined everywhere.
    ``breaks`` tells where the graph has poles, jumps or kinks; empty if nowhere.
    ``guards`` are expressions in the arguments, as text in the language: where none of them is
    0, the function is smooth or undefined. ``plainer`` is the same function in terms of others,
    whose behaviour next to a break is known; ``stepped`` marks those that jump or bend.
    ``cautious`` marks those whose guards are 0 at more places than they break at: where the
    enclosure is finite they are smooth.
    ``at_guard`` tells what becomes of it where a guard is 0, ``part`` what it is where it neither
    jumps nor bends, ``throughout`` what it is where a guard is 0 all over a stretch.
    ``defaults`` are the values of optional arguments that are left out.
    """

    word: Word
    summary: str
    example: str
    value: Callable[..., Any]
    ball: Callable[..., Any]
    derivatives: tuple[str, ...]
    exact: Callable[..., Any]
    needs: str = ""
    breaks: str = ""
    guards: tuple[str, ...] = ()
    plainer: str = ""
    stepped: bool = False
    cautious: bool = False
    at_guard: AtGuard = AtGuard.UNKNOWN
    part: Chosen | None = None
    throughout: Part | None = None
    defaults: tuple[str, ...] = ()
    angle: Angle = Angle.NONE
    value_in_degrees: Callable[..., Any] | None = None
    ball_in_degrees: Callable[..., Any] | None = None
