"""Solve an equation or inequality."""

from __future__ import annotations

import math

from axispath.core.arithmetic.interval import End
from axispath.core.language.numbers import decimal
from axispath.core.practice.asked import Answer, coarse_words, shown, summed, too_coarse
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.kinds.sets import marked_set
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.sought import enclosure
from axispath.core.practice.typed import Number, points
from axispath.core.sheet.document import Document
from axispath.core.sheet.ends import typed_interval
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.solve.answer import Answer as Solved
from axispath.core.solve.answer import Solution, answer
from axispath.core.solve.question import Question as Asked
from axispath.core.solve.question import Unclear, ask

UNKNOWN = "A part of the line is not settled: there may be more."


def _asked(document: Document, question: Question) -> Asked:
    if not question.text.strip():
        raise EditRefused("Type the equation that is to be solved.")
    try:
        return ask(document, question.text)
    except Unclear as unclear:
        raise EditRefused(unclear.message) from unclear


def _interval(document: Document, question: Question) -> tuple[End | None, End | None]:
    low = question.low.strip() or "-∞"
    high = question.high.strip() or "∞"
    return typed_interval(document, low, high)


def checked(document: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    _asked(document, question)
    _interval(document, question)


def asks(document: Document, question: Question) -> str:
    """The usual sentence."""
    where = ""
    if question.low.strip() or question.high.strip():
        where = f" from {question.low.strip() or '−∞'} to {question.high.strip() or '∞'}"
    return f"Solve {' '.join(question.text.split())}{where}."


def truth(document: Document, question: Question, given: Answer) -> tuple[Asked, Solved]:
    """What is asked, and all its solutions."""
    asked = _asked(document, question)
    return asked, answer(asked, *_interval(document, question), given.effort)


def marked(document: Document, question: Question, given: Answer) -> Marked:
    """A list of solutions, or a set."""
    asked, found = truth(document, question, given)
    if not asked.is_equation or found.always:
        parts = found.solved if found.solved is not None else found.always

        def told(x: float, belongs: bool) -> str:
            left, right = asked.heights(0, x)
            if not (math.isfinite(left) and math.isfinite(right)):
                return "A side has no value there."
            return (
                f"At {asked.unknown} = {shown(x)} the sides are {shown(left)} and {shown(right)}."
            )

        return marked_set(document, given.text, parts, found.open, question.decimals, told)
    return _listed(document, question, given, asked, found)


def _listed(
    document: Document, question: Question, given: Answer, asked: Asked, found: Solved
) -> Marked:
    listed = points(document, given.text)
    if any(point.y is not None for point in listed):
        raise EditRefused(
            "Solutions are numbers, not points: write 1; 2 for two of them, and 1.5 with a point."
        )
    typed = [point.x for point in listed]
    left = list(found.solutions)
    if not typed and not left:
        if found.complete:
            return Marked(
                Verdict.RIGHT, ("Right: it has no solution, and the search was complete.",)
            )
        return Marked(Verdict.OPEN, (f"No solution is known. {UNKNOWN}",))
    if not typed:
        return Marked(Verdict.WRONG, ("It has solutions.",))
    rounded, wrong, hits = [], [], 0
    for number in typed:
        hit = next((one for one in left if _is(number, one)), None)
        if hit is not None:
            left.remove(hit)
            hits += 1
            if not number.meets(enclosure(hit.mark.x, hit.mark.radius)):
                rounded.append(number)
        elif any(_is(number, one) for one in found.solutions):
            wrong.append(f"{number.text} is there twice.")
        else:
            wrong.append(_why(asked, found, number))
    coarse = too_coarse(rounded, question.decimals)
    more = [coarse_words(coarse, question.decimals)] if coarse else []
    unknown = "There are more than can be listed." if found.endless else UNKNOWN
    return summed(hits, len(found.solutions), wrong, found.complete, unknown, more)


def _is(number: Number, solution: Solution) -> bool:
    mark = solution.mark
    if number.end.exact is not None and mark.exact is not None and not number.slack:
        return number.end.exact == mark.exact
    return number.may_be(enclosure(mark.x, mark.radius))


def _why(asked: Asked, found: Solved, number: Number) -> str:
    x = number.x
    if not found.low <= x <= found.high:
        return f"{number.text} lies outside of where it is to be solved."
    left, right = asked.heights(0, x)
    if not (math.isfinite(left) and math.isfinite(right)):
        return f"{number.text} is none: a side has no value there."
    near = min(found.solutions, key=lambda one: abs(one.mark.x - x), default=None)
    side = ""
    if near is not None and abs(near.mark.x - x) <= 0.05 * max(1.0, abs(x)):
        side = f" A solution lies a little to the {'right' if near.mark.x > x else 'left'}."
    sides = [decimal(value, 6, 1e-14) for value in (left, right)]
    if sides[0] == sides[1]:
        return f"{number.text} is near, and not exactly a solution.{side}"
    return f"{number.text} is none: there the sides are {sides[0]} and {sides[1]}.{side}"


SOLVE = Asking(
    "solve an equation or inequality",
    ("text", "low", "high", "decimals"),
    asks,
    marked,
    checked,
    "such as 1/2, 2 ± √3, or x < 2 or x ≥ 5",
)
