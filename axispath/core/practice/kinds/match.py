"""Turn sliders until a curve lies on a faint one."""

from __future__ import annotations

import math

from axispath.core.practice.asked import Answer, function_of, shown
from axispath.core.practice.kinds.formulas import differs, ends_of, typed_function
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.sameness import Apart, compared
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Slide, apply
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.sheet.sliders import is_slider

HUNDREDTH = 0.01  # of the height of the view


def aimed(document: Document, question: Question) -> Document:
    """The sheet with its sliders where a curve is to be brought. Raises EditRefused."""
    for lane_id, value in question.aim:
        document = apply(document, Slide(id=lane_id, value=value))
    return document


def checked_match(document: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    function_of(document, question)
    if not question.aim:
        raise EditRefused("Turn the sliders to where the curve is to be brought, then keep that.")
    for lane_id, _ in question.aim:
        lane = resolve(document).lane(lane_id)
        if lane is None or not is_slider(lane):
            raise EditRefused("A slider of this question is not on the sheet any more.")


def _both(
    document: Document, question: Question, answer: Answer
) -> tuple[ResolvedLane, ResolvedLane]:
    now = document
    for slide in answer.slides:
        now = apply(now, slide)
    there = function_of(aimed(document, question), question)
    here = typed_function(now, answer.text) if answer.text.strip() else function_of(now, question)
    return here, there


def asks_match(document: Document, question: Question) -> str:
    """The usual sentence."""
    name = function_of(document, question).name
    return f"Turn the sliders until {name} lies on the faint curve, or type its formula."


def marked_match(document: Document, question: Question, answer: Answer) -> Marked:
    """The curve as its sliders stand, or a formula, against the aim."""
    here, there = _both(document, question, answer)
    found = compared(here, there, *ends_of(document))
    if found.same:
        return Marked(Verdict.RIGHT, ("Right: it is the same function.",))
    told = _distance(found)
    height = document.view.top - document.view.bottom
    close = found.most <= HUNDREDTH * height
    if answer.text.strip():
        if found.same is None:
            words = "It looks the same, and whether it is could not be settled."
            return Marked(Verdict.OPEN if close else Verdict.WRONG, (words, told))
        return Marked(Verdict.WRONG, (differs(found, "yours", "the faint one"), told))
    if close:
        words = f"Right, to a hundredth of the view: {told[0].lower()}{told[1:]}"
        return Marked(Verdict.RIGHT, (words,))
    near = found.most <= 10 * HUNDREDTH * height
    return Marked(Verdict.NEAR if near else Verdict.WRONG, (told,))


def _distance(found: Apart) -> str:
    if math.isnan(found.most):
        return "Somewhere in the view only one of the two curves has a value."
    return f"The curves are {shown(found.most)} apart at most in the view."


MATCH = Asking(
    "bring a curve onto a faint one",
    ("lane", "aim"),
    asks_match,
    marked_match,
    checked_match,
    "or its formula",
    "sliders",
)
