"""What edits make of a document, step by step, each with a view that shows its lanes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from axispath.core.arithmetic.patience import Patience
from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Edit, Slide, apply, describe


@dataclass(frozen=True, slots=True)
class Step:
    """A document in a history, with what led to it."""

    label: str
    document: Document
    slides: bool = False  # moves a slider, and may be one with the move before


def edited(document: Document, edits: Sequence[Edit], patience: Patience | None) -> Iterator[Step]:
    """The documents that edits lead to, one after the other; what changes nothing is left out.

    ``patience`` is for one lane, in choosing a view. Raises EditRefused.
    """
    for edit in edits:
        label = describe(document, edit)
        after = settled(document, apply(document, edit), patience)
        if after != document:
            document = after
            yield Step(label, document, isinstance(edit, Slide))
