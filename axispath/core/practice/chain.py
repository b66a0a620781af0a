"""The record of a sitting: each entry carries a hash over itself and the one before.

A change to any entry changes every hash after it, the last one too, which whoever was examined
may keep (Haber, Stornetta 1991, How to time-stamp a digital document).
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

START = "0" * 64


@dataclass(frozen=True, slots=True)
class Entry:
    """What happened, when (UTC, as ISO 8601), with the hash before and its own."""

    number: int
    at: str
    kind: str
    detail: str
    before: str
    hash: str


def hash_of(number: int, at: str, kind: str, detail: str, before: str) -> str:
    """The hash of an entry: SHA-256, in hexadecimal digits."""
    text = json.dumps([number, at, kind, detail, before], ensure_ascii=False, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()


def answer_digest(text: str, verdict: str) -> str:
    """What stands in the record for an answer as it was given and marked."""
    return _digest([text, verdict])


def sheet_digest(sheet: Mapping[str, Any]) -> str:
    """What stands in the record for a sheet as JSON: whatever the order of its fields."""
    return _digest(dict(sheet))


def _digest(found: Any) -> str:
    text = json.dumps(found, ensure_ascii=False, separators=(",", ":"), sort_keys=True)
    return f"sha256:{hashlib.sha256(text.encode()).hexdigest()}"


def digest_in(entry: Entry) -> str:
    """The digest that an entry carries; empty for one that carries none."""
    return entry.detail[entry.detail.rfind("sha256:") :] if "sha256:" in entry.detail else ""


def following(last: Entry | None, at: str, kind: str, detail: str) -> Entry:
    """The entry after the last one."""
    number, before = (last.number + 1, last.hash) if last is not None else (1, START)
    return Entry(number, at, kind, detail, before, hash_of(number, at, kind, detail, before))


def broken_at(entries: Iterable[Entry]) -> int | None:
    """The number of the first entry that is not what was recorded; None where all are."""
    number, before = 1, START
    for entry in entries:
        own = hash_of(entry.number, entry.at, entry.kind, entry.detail, entry.before)
        if entry.number != number or entry.before != before or entry.hash != own:
            return number
        number, before = number + 1, entry.hash
    return None
