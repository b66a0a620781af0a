"""What the kinds of questions have in common: their lanes, and lists of numbers marked."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from axispath.core.language.numbers import decimal, listed
from axispath.core.path.lanes import USUAL, Effort
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.typed import Number, decimals
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Slide
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve

GONE = "This question is about a lane that is not on the sheet any more."


@dataclass(frozen=True)
class Answer:
    """What somebody answers, and how far a search may go to mark it.

    ``slides`` are the sliders as they stand, ``rows`` are one text for each row of a column.
    """

    text: str = ""
    rows: tuple[str, ...] = ()
    slides: tuple[Slide, ...] = ()
    effort: Effort = USUAL


def lane_of(document: Document, question: Question, which: str = "") -> ResolvedLane:
    """The lane that a question is about. Raises EditRefused where it is gone or has no meaning."""
    lane = resolve(document).lane(which or question.lane)
    if lane is None or not lane.ready:
        raise EditRefused(GONE)
    return lane


def function_of(document: Document, question: Question) -> ResolvedLane:
    """The function of x that a question is about. Raises EditRefused."""
    lane = lane_of(document, question)
    if lane.kind.key != "function" or len(lane.parameters) != 1:
        raise EditRefused(f"{lane.name or 'This lane'} is not a function of one number.")
    return lane


def too_coarse(numbers: Sequence[Number], wanted: int) -> list[Number]:
    """Decimal numbers with fewer decimals than a question wants."""
    return [one for one in numbers if (had := decimals(one)) is not None and had < wanted]


def coarse_words(coarse: Sequence[Number], wanted: int) -> str:
    """What is said of them."""
    places = "decimal" if wanted == 1 else "decimals"
    return f"Give {listed(one.text for one in coarse)} exactly, or with at least {wanted} {places}."


def summed(
    hits: int,
    wanted: int,
    wrong: Sequence[str],
    complete: bool,
    unknown: str,
    more: Sequence[str] = (),
) -> Marked:
    """A list of so many right answers out of ``wanted``, with what is said of the wrong ones.

    Where the search was not ``complete``, what is not found is ``unknown``: nothing is called
    wrong that could lie there, and nothing is called all.
    """
    words = [*wrong, *more]
    if wrong or more:
        part = [f"{hits} right."] if hits else []
        near = not wrong or hits
        return Marked(Verdict.PART if near and hits else Verdict.WRONG, (*part, *words))
    if hits < wanted:
        left = "one is" if wanted - hits == 1 else "some are"
        if not hits:
            return Marked(Verdict.WRONG, ("There are some to be found.",))
        return Marked(Verdict.PART, (f"Right so far, and {left} still missing.",))
    if not complete:
        return Marked(Verdict.OPEN, (f"All that are known. {unknown}",))
    return Marked(Verdict.RIGHT, ("That is all of them: the search was complete.",))


def shown(value: float) -> str:
    """A number in a sentence."""
    return decimal(value, 6, 1e-14) if math.isfinite(value) else "without a value"
