"""Documents as they are stored: compressed, and against an earlier one where they share most of it.

An edit changes little of a document, so that a revision against a snapshot takes some dozens of
bytes. Compression with a raw dictionary (Y. Collet, M. Kucherawy, RFC 8878, 2021) finds what is
shared by itself, whatever a document comes to hold; changes of our own making would need a rule
for each kind of edit, and a snapshot is at most one step away, so that nothing has to be replayed.
"""

from __future__ import annotations

from backports import zstd

from axispath.core.data.cells import Cells
from axispath.core.sheet.document import Document

LEVEL = 6
LEAST = 8  # bytes of what something can be packed against
SMALL = 400  # bytes that a revision may take whatever its snapshot takes
LARGEST = 2 << 20  # bytes of a document
SHARE = 4  # a revision may take this part of its snapshot; above it is a snapshot of its own


def written(document: Document) -> tuple[bytes, dict[str, Cells]]:
    """A document as text, always in the same way, and the long columns that it only names."""
    contents: dict[str, Cells] = {}
    return document.model_dump_json(context={"contents": contents}).encode(), contents


def packed(text: bytes, against: bytes | None = None) -> bytes:
    """A document's text, compressed against an earlier one where that is given."""
    if against is None or len(against) < LEAST:
        return zstd.compress(text, level=LEVEL)
    return zstd.compress(text, level=LEVEL, zstd_dict=zstd.ZstdDict(against, is_raw=True))


def unpacked(data: bytes, against: bytes | None = None) -> bytes:
    """The text of a document again; ``against`` is what it was packed against."""
    if against is None or len(against) < LEAST:
        return zstd.decompress(data)
    return zstd.decompress(data, zstd_dict=zstd.ZstdDict(against, is_raw=True))


def revised(text: bytes, snapshot: bytes, size: int) -> bytes | None:
    """A document packed against the text of a snapshot that takes ``size`` bytes.

    None where it shares so little that it had better be a snapshot itself.
    """
    body = packed(text, snapshot)
    return None if len(body) > SMALL and len(body) * SHARE > size else body
