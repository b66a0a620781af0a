"""A part of a script, or two cells of a notebook."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Section:
    """A title, plain words, and code."""

    title: str
    words: str
    code: str
