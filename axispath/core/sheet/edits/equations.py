"""Edits of blocks of equations on the page Working."""

from __future__ import annotations

import secrets
from typing import Annotated, Literal

from pydantic import Field

from axispath.core.sheet.block import MAX_BLOCK, Block
from axispath.core.sheet.document import MAX_LANES, Document, Lane, LaneId
from axispath.core.sheet.edits.change import Change, LaneChange
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve

MAX_BLOCKS = 12


class AddBlock(Change):
    """A new block of equations, even an empty one."""

    do: Literal["add block"] = "add block"
    text: Annotated[str, Field(max_length=MAX_BLOCK)] = ""
    id: LaneId | None = None

    def applied(self, document: Document) -> Document:
        if len(document.lanes) >= MAX_LANES:
            raise EditRefused(f"A sheet can hold {MAX_LANES} lanes, and this one is full.")
        if sum(lane.block is not None for lane in document.lanes) >= MAX_BLOCKS:
            raise EditRefused(f"A sheet can have {MAX_BLOCKS} blocks of equations.")
        free = self.id if self.id and document.lane(self.id) is None else secrets.token_hex(4)
        lane = Lane(id=free, text="", block=Block(text=self.text), working=True)
        return document.model_copy(update={"lanes": (*document.lanes, lane)})

    def words(self, document: Document) -> str:
        return "a block of equations"


def with_block(document: Document, equations: list[str]) -> Document | None:
    """The document with a block of equations that are read and have an unknown; None for others."""
    after = AddBlock(text="\n".join(equations)).applied(document)
    lane = resolve(after).lanes[-1]
    return None if lane.error else after


class SetBlock(LaneChange):
    """Other equations, or something else said of their unknowns."""

    do: Literal["set block"] = "set block"
    block: Block

    def applied(self, document: Document) -> Document:
        if self.lane(document).block is None:
            raise EditRefused("Only blocks of equations are changed so.")
        return self.changed(document, block=self.block)

    def words(self, document: Document) -> str:
        return "changing equations"
