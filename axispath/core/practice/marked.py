"""How answers are marked."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from axispath.core.sheet.practice import Found


class Verdict(StrEnum):
    """What an answer, or a part of one, is."""

    RIGHT = "right"
    PART = "part"  # right as far as it goes
    NEAR = "near"
    WRONG = "wrong"
    AGAIN = "again"  # found before
    OPEN = "open"  # the search does not know
    KEPT = "kept"  # not marked


@dataclass(frozen=True, slots=True)
class Marked:
    """A verdict with its reasons, one sentence each; ``found`` are landmarks found just now."""

    verdict: Verdict
    words: tuple[str, ...]
    found: tuple[Found, ...] = ()

    @property
    def done(self) -> bool:
        """Whether there is nothing more to answer."""
        return self.verdict in (Verdict.RIGHT, Verdict.KEPT)
