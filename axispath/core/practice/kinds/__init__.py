"""The register of kinds of questions."""

from __future__ import annotations

from axispath.core.practice.asked import Answer
from axispath.core.practice.kinds.column import COLUMN
from axispath.core.practice.kinds.landmarks import LANDMARKS
from axispath.core.practice.kinds.match import MATCH
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.kinds.sentence import WORDS
from axispath.core.practice.kinds.sets import DOMAIN
from axispath.core.practice.kinds.solve import SOLVE
from axispath.core.practice.kinds.which import WHICH
from axispath.core.practice.marked import Marked
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Question

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
    """An answer to a question, on the sheet without its cover. Raises EditRefused."""
    return ASKED[question.kind].marked(document, question, answer)


def sentence(document: Document, question: Question) -> str:
    """How a question is asked: in its own words, or by the usual sentence. Raises EditRefused."""
    return question.words.strip() or ASKED[question.kind].asks(document, question)
