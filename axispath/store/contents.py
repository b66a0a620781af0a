"""Long columns of numbers beside the documents that hold them: each kept once."""

from __future__ import annotations

import re

import numpy as np
from backports import zstd
from sqlalchemy import select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from axispath.core.data.cells import Cells
from axispath.core.memory import Memory
from axispath.store.models import Content, Sheet, SheetContent

KEPT = 64 << 20  # bytes of numbers at hand in a process
LEVEL = 3
_NAMED = re.compile(rb'{"content":"([0-9a-f]{64})"}')

_at_hand: Memory[Cells] = Memory(KEPT, lambda key, cells: cells.values.nbytes)


def keep(session: Session, sheet: Sheet, contents: dict[str, Cells]) -> int:
    """Store columns that a sheet needs; gives the bytes that it needs more than before."""
    if not contents:
        return 0
    known = set(
        session.scalars(
            select(SheetContent.digest).where(
                SheetContent.sheet_id == sheet.id, SheetContent.digest.in_(contents)
            )
        )
    )
    more = 0
    for digest, cells in contents.items():
        _at_hand.keep(digest, cells)
        if digest in known:
            continue
        body = zstd.compress(cells.values.tobytes(), level=LEVEL)
        session.execute(insert(Content).values(digest=digest, body=body).on_conflict_do_nothing())
        session.add(SheetContent(sheet_id=sheet.id, digest=digest))
        more += len(body)
    return more


def named_in(session: Session, text: bytes) -> dict[str, Cells]:
    """The columns that the text of a document names."""
    digests = {match.decode() for match in _NAMED.findall(text)}
    found = {d: cells for d in digests if (cells := _at_hand.get(d)) is not None}
    missing = digests - set(found)
    if missing:
        rows = session.execute(
            select(Content.digest, Content.body).where(Content.digest.in_(missing))
        )
        for digest, body in rows:
            cells = Cells(np.frombuffer(zstd.decompress(body), dtype=np.float64))
            _at_hand.keep(digest, cells)
            found[digest] = cells
    return found
