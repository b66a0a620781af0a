"""Marking, as it runs behind the wall: it knows the sheet with its answers, and nobody's name."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from axispath.budgets import USUAL_SEARCH
from axispath.clock import spent
from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.language.numbers import decimal
from axispath.core.path.covering import is_same
from axispath.core.path.kinds import SEARCHED
from axispath.core.practice.asked import Answer
from axispath.core.practice.guess import Click, Guess
from axispath.core.practice.guess import marked as guessed
from axispath.core.practice.hints import hint
from axispath.core.practice.kinds import ASKED, marked, sentence
from axispath.core.practice.marked import Marked
from axispath.core.practice.sought import covered, whole
from axispath.core.practice.typed import points
from axispath.core.search.landmark import GROUP_OF
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import Slide
from axispath.core.sheet.practice import Found, Question
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.sliders import is_slider


@dataclass(frozen=True, slots=True)
class Guessed:
    """Where somebody thinks that a landmark is: a click, or what was typed."""

    x: float
    y: float | None
    typed: str
    group: str
    lane: str


def guess_within(document: Document, wanted: Guessed, seconds: float) -> Marked:
    """How a guess is marked. Raises EditRefused, OutOfTime."""
    with limited(Patience(seconds, spent)):
        at: Any = Click(wanted.x, wanted.y)
        if wanted.typed.strip():
            given = points(document, wanted.typed)
            if len(given) != 1:
                raise EditRefused("One place at a time: type a number, or a point.")
            at = given[0]
        found = whole(document, USUAL_SEARCH)
        return guessed(document, found, Guess(at, wanted.group, wanted.lane))


def hint_within(document: Document, step: int, group: str, lane: str, seconds: float) -> Marked:
    """A hint at what is covered. Raises EditRefused, OutOfTime."""
    with limited(Patience(seconds, spent)):
        return hint(document, whole(document, USUAL_SEARCH), step, group, lane)


def answer_within(
    document: Document,
    seen: Document | None,
    question: Question,
    text: str,
    rows: tuple[str, ...],
    seconds: float,
) -> Marked:
    """How an answer is marked. Raises EditRefused, OutOfTime.

    On a hand-out the ``document`` is what was handed out, whatever was made of it, and ``seen``
    how somebody has it: of that only the sliders count, and only where they are the answer.
    """
    with limited(Patience(seconds, spent)):
        slides = turned(document, seen) if seen is not None else ()
        by_sliders = ASKED[question.kind].by == "sliders"
        answer = Answer(text, rows, slides if by_sliders else (), USUAL_SEARCH)
        found = marked(document, question, answer)
        if slides and not by_sliders and question.kind != "words":
            note = "This is about the sheet with its sliders as they were handed out."
            return replace(found, words=(*found.words, note))
        return found


def turned(given: Document, seen: Document) -> tuple[Slide, ...]:
    """How far the sliders of a sheet that was handed out are turned where it is seen."""
    now = resolve(seen)
    found = []
    for lane in resolve(given):
        other = now.lane(lane.lane.id)
        both = is_slider(lane) and other is not None and is_slider(other)
        if both and other is not None and other.value != lane.value:
            found.append(Slide(id=lane.lane.id, value=other.value))
    return tuple(found)


def check_within(document: Document, question: Question, seconds: float) -> str:
    """The sentence of a question that can be asked. Raises EditRefused where it cannot."""
    with limited(Patience(seconds, spent)):
        ASKED[question.kind].checked(document, question)
        return sentence(document, question)


@dataclass(frozen=True, slots=True)
class Asks:
    """How a question stands on a page; ``trouble`` where it cannot be asked any more."""

    sentence: str
    trouble: str = ""


def asks_within(document: Document, seconds: float) -> list[Asks]:
    """The sentences of all questions of a sheet."""
    found = []
    for question in document.questions:
        try:
            with limited(Patience(seconds, spent)):
                found.append(Asks(sentence(document, question)))
        except (EditRefused, OutOfTime) as error:
            why = getattr(error, "message", "It takes too long to look at.")
            found.append(Asks(question.words, why))
    return found


@dataclass(frozen=True, slots=True)
class Coverable:
    """What of a sheet can be covered: lanes with their names, and groups that they have."""

    lanes: tuple[tuple[str, str], ...]
    groups: tuple[str, ...]


def coverable_within(document: Document, seconds: float) -> Coverable:
    """The lanes with landmarks that are shown, and the groups under which those are listed."""
    with limited(Patience(seconds, spent)):
        lanes = resolve(document).shown(SEARCHED)
        groups = {group for lane in lanes for group in SEARCHED[lane.kind.key].groups}
        groups |= {"intersections"} if len(lanes) > 1 else set()
        order = [group for group in dict.fromkeys(GROUP_OF.values()) if group in groups]
        named = tuple((lane.lane.id, lane.name or "") for lane in lanes)
        return Coverable(named, tuple(group for group in order if group != "y-intercept"))


def most_missed(
    document: Document, found: Sequence[Sequence[dict[str, Any]]], seconds: float
) -> list[tuple[str, int]]:
    """Of the landmarks under a cover how many people did not find each, the most missed first."""
    with limited(Patience(seconds, spent)):
        hidden = covered(document, whole(document, USUAL_SEARCH))
    told = []
    people = [[Found.model_validate(each) for each in theirs] for theirs in found]
    for one in hidden:
        hits = sum(
            any(not each.shown and is_same(each, one.found.key, one.mark) for each in theirs)
            for theirs in people
        )
        told.append((f"{one.called} at x = {decimal(one.mark.x)}", len(found) - hits))
    return sorted(told, key=lambda item: -item[1])
