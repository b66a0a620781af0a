"""What every edit is, and what edits have in common."""

from __future__ import annotations

from abc import abstractmethod

from axispath.core.language.errors import LanguageError
from axispath.core.sheet.document import Document, Lane, LaneId
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.value import Value


class Change(Value):
    """A function from document to document.

    It either gives a whole new document or raises EditRefused with a sentence; there is nothing in
    between. Subclasses name themselves by a literal ``do``.
    """

    @abstractmethod
    def applied(self, document: Document) -> Document:
        """The document after the edit."""

    @abstractmethod
    def words(self, document: Document) -> str:
        """What the edit does to this document, to stand after “Undo”."""


class LaneChange(Change):
    """An edit of one lane."""

    id: LaneId

    def lane(self, document: Document) -> Lane:
        """The lane that is meant."""
        return lane_of(document, self.id)

    def changed(self, document: Document, **changes: object) -> Document:
        """The document with something of the lane changed."""
        return document.with_lane(self.lane(document).model_copy(update=changes))

    def called(self, document: Document) -> str:
        """What the lane is called in a sentence."""
        lane = resolve(document).lane(self.id)
        return (lane.name if lane else None) or "a lane"


def lane_of(document: Document, lane_id: str) -> Lane:
    """The lane with this id. Raises EditRefused where it is gone."""
    lane = document.lane(lane_id)
    if lane is None:
        raise EditRefused("This lane is not on the sheet any more.")
    return lane


def refused(error: LanguageError) -> EditRefused:
    """The same sentence as an edit that is refused."""
    return EditRefused(error.message, error.start, error.end, error.mend)
