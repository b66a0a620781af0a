"""What a sheet is practised with: covered landmarks, and questions."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from axispath.core.sheet.groups import MarkGroup
from axispath.core.sheet.value import Value

MOST_QUESTIONS = 40
MOST_OPTIONS = 8
MOST_ROWS = 20
MOST_AIMS = 20

Ref = Annotated[str, Field(pattern=r"^[a-z0-9]{0,12}$")]
Typed = Annotated[str, Field(max_length=200)]
Place = Annotated[float, Field(allow_inf_nan=False)]


class Cover(Value):
    """Which landmarks are covered while it is ``on``: all where neither groups nor lanes are named.

    An intersection is covered where one of its lanes is. A ``fixed`` one was put there by whoever
    handed the sheet out, and stays.
    """

    on: bool = False
    fixed: bool = False
    groups: Annotated[tuple[MarkGroup, ...], Field(max_length=15)] = ()
    lanes: Annotated[tuple[Ref, ...], Field(max_length=200)] = ()

    def covers(self, group: str, lanes: tuple[str, ...]) -> bool:
        """Whether landmarks of a group of these lanes are covered."""
        of_group = not self.groups or group in self.groups
        return self.on and of_group and (not self.lanes or any(one in self.lanes for one in lanes))


class Found(Value):
    """A covered landmark that was found: of which lane or pair, its kind and its place."""

    key: Annotated[str, Field(max_length=40)]
    kind: Annotated[str, Field(max_length=20)]
    x: Place
    y: Place | None = None
    shown: bool = False


class Question(Value):
    """A question on a sheet.

    ``words`` stand in the place of the usual sentence. ``landmarks`` of a ``group`` of a ``lane``
    (intersections with an ``other``), its ``domain``, solutions of the equation ``text``, sliders
    that ``match`` a lane to its curve at the ``aim``, values of a lane at ``places`` for a
    ``column``, ``which`` of the ``options`` a lane is, or a sentence in ``words``. Decimal numbers
    need at least so many ``decimals``.
    """

    id: Ref = ""
    kind: Literal["landmarks", "domain", "solve", "match", "column", "which", "words"]
    words: Annotated[str, Field(max_length=500)] = ""
    lane: Ref = ""
    other: Ref = ""
    group: MarkGroup | Literal[""] = ""
    text: Annotated[str, Field(max_length=2000)] = ""
    low: Typed = ""
    high: Typed = ""
    options: Annotated[tuple[Typed, ...], Field(max_length=MOST_OPTIONS)] = ()
    places: Annotated[tuple[Typed, ...], Field(max_length=MOST_ROWS)] = ()
    aim: Annotated[tuple[tuple[Ref, Place], ...], Field(max_length=MOST_AIMS)] = ()
    decimals: Annotated[int, Field(ge=0, le=10)] = 2
