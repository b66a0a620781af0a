"""What the register of kinds of questions holds."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axispath.core.practice.asked import Answer
from axispath.core.practice.marked import Marked
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Question


@dataclass(frozen=True, slots=True)
class Asking:
    """A kind of question: its title, its ``fields`` as they are written, how it is put and marked.

    ``checked`` raises EditRefused where a question of this kind cannot be asked; ``example`` is
    an answer of the kind that is typed, ``by`` how it is given: typed, in rows, by sliders, by a
    choice, or as text.
    """

    title: str
    fields: tuple[str, ...]
    asks: Callable[[Document, Question], str]
    marked: Callable[[Document, Question, Answer], Marked]
    checked: Callable[[Document, Question], None]
    example: str
    by: str = "typed"
