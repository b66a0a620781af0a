"""What a hand-out shows, whether it collects answers, and how it is sealed."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from axispath.core.sheet.document import MAX_LANES, LaneId
from axispath.core.sheet.groups import MarkGroup

Capability = Annotated[str, Field(pattern=r"^[a-z ]{1,20}$")]


class Seal(BaseModel):
    """A sealed session: what is ``off``, from when to when, and the word to enter with.

    With a ``device`` key a managing device reports whether it is locked to the page.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    off: Annotated[tuple[Capability, ...], Field(max_length=20)] = ()
    begins: datetime
    ends: datetime
    word: Annotated[str, Field(max_length=40)] = ""
    device: Annotated[str, Field(max_length=64)] = ""


class Shows(BaseModel):
    """What is seen of a sheet: ``lanes`` are all where there is no list, ``pages`` too.

    Landmarks that are ``covered`` (all, or some ``groups``) are found by guessing; a ``framed`` one
    may stand in others' pages. One that ``collects`` keeps answers for whoever handed it out.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    lanes: Annotated[tuple[LaneId, ...], Field(max_length=MAX_LANES)] | None = None
    pages: Annotated[tuple[str, ...], Field(max_length=10)] | None = None
    covered: bool = False
    groups: Annotated[tuple[MarkGroup, ...], Field(max_length=15)] = ()
    framed: bool = False
    collects: bool = False
    seal: Seal | None = None

    @property
    def off(self) -> frozenset[str]:
        """The capabilities that are off."""
        return frozenset(self.seal.off) if self.seal is not None else frozenset()
