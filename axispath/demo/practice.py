"""The practice sheets of the harbour: questions, and landmarks that are covered."""

from __future__ import annotations

from functools import cache

from axispath.core.path.framing import settled
from axispath.core.sheet.document import Document, Slider, View
from axispath.core.sheet.edits import (
    AddLane,
    SetCover,
    SetQuestion,
    SetSlider,
    apply,
    with_view,
)
from axispath.core.sheet.practice import Cover, Question

LOCK = (
    "w(x) = 4 + (x - 2)(x - 5)(x - 9)/12 for 0 <= x <= 10",
    "sill(x) = 4 for 0 <= x <= 10",
    "gap(x) = √(w(x) - sill(x))",
)


@cache
def water_in_the_lock() -> Document:
    """The level in a lock while its gates leak: what is asked of it is covered."""
    empty = document = Document(name="Practice: water in the lock")
    for number, line in enumerate(LOCK, 1):
        document = apply(document, AddLane(text=line, id=f"lane{number}"))
    document = settled(empty, document)
    for question in (
        Question(
            kind="landmarks",
            lane="lane1",
            other="lane2",
            group="intersections",
            words="When does the water stand just at the sill? (x are hours)",
        ),
        Question(
            kind="landmarks",
            lane="lane1",
            group="turning points",
            words="When is the water highest and lowest for a while? Two decimals will do.",
        ),
        Question(kind="domain", lane="lane3"),
        Question(kind="solve", text="w(x) >= 4", low="0", high="10"),
        Question(kind="column", lane="lane1", places=("0", "3", "7", "10")),
        Question(
            kind="words",
            words="A boat wants to pass. What would you tell its skipper, and from which numbers?",
        ),
    ):
        document = apply(document, SetQuestion(question=question))
    return apply(document, SetCover(cover=Cover(on=True)))


HAWSER = (
    "y(x) = c cosh((x - m)/c) - sag",
    "c = 5",
    "m = 0",
    "sag = 4",
)
AIM = (("lane2", 8.0), ("lane3", 1.0), ("lane4", 7.0))


@cache
def hawser() -> Document:
    """A rope between two bollards, to be brought onto one that is drawn faintly."""
    document = Document(name="Practice: a hawser between two bollards")
    for number, line in enumerate(HAWSER, 1):
        document = apply(document, AddLane(text=line, id=f"lane{number}"))
    for lane, low, high in (("lane2", "3", "12"), ("lane3", "-3", "3"), ("lane4", "0", "9")):
        slider = Slider(low=low, high=high, step="0.5")
        document = apply(document, SetSlider(id=lane, slider=slider))
    document = with_view(document, View(left=-9, right=9, bottom=-2, top=9, chosen=True))
    for question in (
        Question(kind="match", lane="lane1", aim=AIM),
        Question(
            kind="which",
            lane="lane1",
            options=("cosh(x/5) - 4", "5 cosh(x/5) - 4", "5 cosh(x) - 4", "x^2/10 + 1"),
            words="Before you turn anything: which of these is the rope as it hangs now?",
        ),
        Question(kind="solve", text="5 cosh(x/5) = 6"),
    ):
        document = apply(document, SetQuestion(question=question))
    return document
