"""Recognise a curve among several formulas."""

from __future__ import annotations

import re

from axispath.core.practice.asked import Answer, function_of
from axispath.core.practice.kinds.formulas import differs, ends_of, typed_function
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.sameness import compared
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve


def checked_which(document: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    lane = function_of(document, question)
    if len(question.options) < 2:
        raise EditRefused("Type at least two formulas to choose from.")
    found = [
        compared(typed_function(document, text), lane, *ends_of(document)).same
        for text in question.options
    ]
    if True not in found:
        raise EditRefused(f"None of these formulas is surely the same function as {lane.name}.")
    if None in found:
        unclear = question.options[found.index(None)]
        raise EditRefused(f"Whether {unclear} is the same function could not be settled.")


def asks_which(document: Document, question: Question) -> str:
    """The usual sentence."""
    return f"Which of these is the curve of {function_of(document, question).name}?"


def marked_which(document: Document, question: Question, answer: Answer) -> Marked:
    """One of the formulas, by its text, or another that is the same."""
    lane = function_of(document, question)
    if not _is_option(question, answer.text):
        named = _named_function(document, answer.text)
        if named:
            raise EditRefused(f"{named} is a function of this sheet: write its formula.")
    chosen = typed_function(document, answer.text)
    found = compared(chosen, lane, *ends_of(document))
    if found.same:
        return Marked(Verdict.RIGHT, (f"Right: it is the curve of {lane.name}.",))
    if found.same is None:
        return Marked(Verdict.OPEN, ("Whether it is the same function could not be settled.",))
    return Marked(Verdict.WRONG, (differs(found, "this one", "the curve"),))


def _is_option(question: Question, text: str) -> bool:
    """Whether one of the formulas was chosen as it stands."""
    return "".join(text.split()) in ("".join(option.split()) for option in question.options)


def _named_function(document: Document, text: str) -> str:
    """A function of the sheet that a formula names, whose formula may be the very one asked for."""
    names = {lane.name for lane in resolve(document) if lane.kind.key == "function" and lane.name}
    return next((word for word in re.findall(r"[^\W\d]\w*", text) if word in names), "")


WHICH = Asking(
    "recognise a curve",
    ("lane", "options"),
    asks_which,
    marked_which,
    checked_which,
    "",
    "choice",
)
