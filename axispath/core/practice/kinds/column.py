"""Fill a column of values."""

from __future__ import annotations

from axispath.core.practice.asked import Answer, coarse_words, function_of, too_coarse
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.seen import value_at
from axispath.core.practice.typed import number
from axispath.core.sheet.document import Document
from axispath.core.sheet.ends import typed_end
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused


def _places(document: Document, question: Question) -> list[float]:
    if not question.places:
        raise EditRefused("Type the x of the rows, such as −1, 0, 1/2.")
    return [typed_end(document, text).x for text in question.places]


def checked_column(document: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    function_of(document, question)
    _places(document, question)


def asks_column(document: Document, question: Question) -> str:
    """The usual sentence."""
    lane = function_of(document, question)
    return f"Fill the column of {lane.name}({lane.parameters[0]}); “none” where it has no value."


def marked_column(document: Document, question: Question, answer: Answer) -> Marked:
    """A value for each row."""
    lane = function_of(document, question)
    right, words, rounded = 0, [], []
    for k, place in enumerate(question.places):
        text = answer.rows[k].strip() if k < len(answer.rows) else ""
        if not text:
            words.append(f"The row x = {place} is empty.")
            continue
        value = value_at(lane, typed_end(document, place).ball)
        if text.lower() in ("none", "—", "-", "undefined"):
            if value is None:
                right += 1
            else:
                words.append(f"{lane.name}({place}) has a value.")
            continue
        typed = number(document, text)
        if value is None:
            words.append(f"{lane.name} has no value at x = {place}, or it is not settled.")
        elif typed.may_be(value):
            right += 1
            if not typed.meets(value):
                rounded.append(typed)
        else:
            smaller = "smaller" if value < typed.end.ball else "larger"
            words.append(f"{lane.name}({place}) is {smaller} than {text}.")
    coarse = too_coarse(rounded, question.decimals)
    if coarse:
        words.append(coarse_words(coarse, question.decimals))
    if not words:
        return Marked(Verdict.RIGHT, ("Right: every row.",))
    verdict = Verdict.PART if right else Verdict.WRONG
    return Marked(verdict, (f"{right} of {len(question.places)} rows right.", *words))


COLUMN = Asking(
    "fill a column",
    ("lane", "places", "decimals"),
    asks_column,
    marked_column,
    checked_column,
    "a number for each row",
    "rows",
)
