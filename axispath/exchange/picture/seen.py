"""What a picture is to show."""

from __future__ import annotations

from dataclasses import dataclass, field

from axispath.core.path.lanes import USUAL, Effort, Range
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document


@dataclass(frozen=True)
class Seen:
    """A document in its view, ``width`` × ``height`` pixels, with what was put on the plot.

    ``pinned`` are the keys of labelled landmarks, ``trail`` the document in the states that its
    sliders passed, ``held`` the first of two readings; the tangent is at ``reading`` and the area
    between the two.
    """

    document: Document
    width: int
    height: int
    effort: Effort = USUAL
    only: Range | None = None
    pinned: frozenset[str] = frozenset()
    trail: list[Document] = field(default_factory=list)
    reading: float | None = None
    held: float | None = None
    tangent: str = ""
    area: str = ""
    against: str = ""

    def frame(self, width: int, height: int) -> Frame:
        """The view on so many pixels."""
        view = self.document.view
        return Frame(view.left, view.right, view.bottom, view.top, width, height)
