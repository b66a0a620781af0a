"""The register of kinds of questions."""

from __future__ import annotations

from dataclasses import replace

from axispath.core.practice.asked import Answer
from axispath.core.practice.kinds.column import COLUMN
from axispath.core.practice.kinds.landmarks import LANDMARKS
from axispath.core.practice.kinds.match import MATCH
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.kinds.sentence import WORDS
from axispath.core.practice.kinds.sets import DOMAIN
from axispath.core.practice.kinds.solve import SOLVE
from axispath.core.practice.kinds.which import WHICH
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.practice.typed import with_points
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused

RANK = {verdict: k for k, verdict in enumerate((Verdict.WRONG, Verdict.OPEN, Verdict.AGAIN))}
RANK |= {Verdict.NEAR: 3, Verdict.PART: 4, Verdict.KEPT: 5, Verdict.RIGHT: 6}
ASKED: dict[str, Asking] = {
    "landmarks": LANDMARKS,
    "domain": DOMAIN,
    "solve": SOLVE,
    "match": MATCH,
    "column": COLUMN,
    "which": WHICH,
    "words": WORDS,
}


def marked(document: Document, question: Question, answer: Answer) -> Marked:
    """An answer to a question, on the sheet without its cover. Raises EditRefused.

    Where commas may be those of a list or decimal ones, it is what is right.
    """
    other = with_points(answer.text) if ASKED[question.kind].by == "typed" else ""
    if not other:
        return ASKED[question.kind].marked(document, question, answer)
    try:
        found = ASKED[question.kind].marked(document, question, answer)
    except EditRefused:
        return ASKED[question.kind].marked(document, question, replace(answer, text=other))
    if found.done:
        return found
    again = ASKED[question.kind].marked(document, question, replace(answer, text=other))
    return again if RANK[again.verdict] > RANK[found.verdict] else found


def sentence(document: Document, question: Question) -> str:
    """How a question is asked: in its own words, or by the usual sentence. Raises EditRefused."""
    return question.words.strip() or ASKED[question.kind].asks(document, question)
