"""A part of a script, or two cells of a notebook."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Section:
    """A title, plain words, and code."""

    title: str
    words: str
    code: str

    def __post_init__(self) -> None:
        """Titles and words become comments: a line break in them would begin a line of code."""
        for name in ("title", "words"):
            object.__setattr__(self, name, " ".join(getattr(self, name).split()))
