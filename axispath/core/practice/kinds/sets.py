"""Sets of numbers as answers: the domain of a function, and the solutions of an inequality."""

from __future__ import annotations

import math
from collections.abc import Callable

from flint import arb

from axispath.core.practice.asked import Answer, coarse_words, function_of, shown, too_coarse
from axispath.core.practice.intervals import Set, Typed, some_number, without
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.seen import value_at
from axispath.core.search.landmark import Open
from axispath.core.search.line import Difference, look
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Question
from axispath.core.solve.sets import Interval, common, united


def marked_set(
    document: Document,
    text: str,
    truth: Set,
    opened: tuple[Open, ...],
    decimals: int,
    told: Callable[[float, bool], str],
) -> Marked:
    """A set against the true one, outside of what is ``opened``.

    ``told`` says of a number why it belongs, or does not.
    """
    ends = sorted({end for part in truth for end in (part.low, part.high) if math.isfinite(end)})
    reading = Typed(document, ends)
    given = reading.read(text)
    unknown = tuple(Interval(item.low, item.high, True, True) for item in opened)
    too_many = without(without(given, truth), unknown)
    missing = without(without(truth, given), unknown)
    if too_many:
        x = some_number(too_many)
        return Marked(_verdict(given, truth), (f"{shown(x)} is in your answer. {told(x, False)}",))
    if missing:
        x = some_number(missing)
        return Marked(
            _verdict(given, truth), (f"{shown(x)} is missing from your answer. {told(x, True)}",)
        )
    rounded = [one for one in reading.numbers if one.x not in ends]
    coarse = too_coarse(rounded, decimals)
    if coarse:
        return Marked(Verdict.PART, ("Right so far.", coarse_words(coarse, decimals)))
    if opened:
        words = "Right as far as it is known: a part of the line is not settled."
        return Marked(Verdict.OPEN, (words,))
    return Marked(Verdict.RIGHT, ("Right: these numbers, and no others.",))


def _verdict(given: Set, truth: Set) -> Verdict:
    """Nothing but ends that are in or out by mistake is near."""
    wrong = (*without(given, truth), *without(truth, given))
    return Verdict.NEAR if all(part.low == part.high for part in wrong) else Verdict.WRONG


def domain_of(
    document: Document, question: Question, answer: Answer
) -> tuple[Set, tuple[Open, ...]]:
    """Where a function has a value, on the whole line."""
    lane = function_of(document, question)
    assert lane.statement is not None
    of = Difference(lane.statement.body, lane.parameters[0], lane.definitions, lane.unit)
    low, high = lane.ends
    found = look(of, low, high, answer.effort.budget(1))
    parts = united(
        Interval(cell.low, cell.high, cell.low == cell.high, cell.low == cell.high)
        for cell in found.cells
        if cell.sign is not None
    )
    written = Interval(
        low.x if low else -math.inf,
        high.x if high else math.inf,
        bool(low and low.closed),
        bool(high and high.closed),
    )
    return common(parts, (written,)), found.open


def marked_domain(document: Document, question: Question, answer: Answer) -> Marked:
    """The domain of a function."""
    lane = function_of(document, question)
    truth, opened = domain_of(document, question, answer)

    def told(x: float, belongs: bool) -> str:
        value = value_at(lane, arb(x))
        if belongs:
            return (
                f"{lane.name}({shown(x)}) is {shown(float(value.mid()))}."
                if value is not None
                else (f"{lane.name} has a value there.")
            )
        return f"{lane.name} has no value at {shown(x)}."

    return marked_set(document, answer.text, truth, opened, question.decimals, told)


def asks_domain(document: Document, question: Question) -> str:
    """The usual sentence."""
    return f"For which x has {function_of(document, question).name} a value?"


def checked_domain(document: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    function_of(document, question)


DOMAIN = Asking(
    "give the domain of a function",
    ("lane", "decimals"),
    asks_domain,
    marked_domain,
    checked_domain,
    "such as x ≥ −2 and x ≠ 1, or [−2, 1) ∪ (1, ∞)",
)
