"""What edits make of a document, step by step, each with a view that shows its lanes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from axispath.core.arithmetic.patience import Patience
from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Edit, Slide
from axispath.core.sheet.told import told


@dataclass(frozen=True, slots=True)
class Step:
    """A document in a history, with what led to it."""

    label: str
    document: Document
    slides: bool = False  # moves a slider, and may be one with the move before
    kind: str = ""  # the name of the edit
    told: str = ""  # what changed in the mathematics


def edited(document: Document, edits: Sequence[Edit], patience: Patience | None) -> list[Step]:
    """The documents that edits lead to, one after the other; what changes nothing is left out.

    The last has a view that shows its lanes; ``patience`` is for choosing it, each lane once.
    Raises EditRefused.
    """
    steps = []
    before = document
    for edit in edits:
        label = edit.words(document)
        after = edit.applied(document)
        if after != document:
            words = told(document, after)
            document = after
            steps.append(Step(label, document, isinstance(edit, Slide), edit.do, words))
    if steps:
        steps[-1] = replace(steps[-1], document=settled(before, document, patience))
    return steps
