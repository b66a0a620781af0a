"""A sentence to write, which nobody marks but people."""

from __future__ import annotations

from axispath.core.practice.asked import Answer
from axispath.core.practice.kinds.register import Asking
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.sheet.document import Document
from axispath.core.sheet.practice import Question
from axispath.core.sheet.refused import EditRefused

LONGEST_TEXT = 2000


def checked_words(_: Document, question: Question) -> None:
    """Whether this can be asked. Raises EditRefused."""
    if not question.words.strip():
        raise EditRefused("Type what is to be answered in a sentence.")


def asks_words(_: Document, question: Question) -> str:
    """There is no usual sentence."""
    return question.words


def marked_words(_: Document, __: Question, answer: Answer) -> Marked:
    """Kept as it is."""
    if not answer.text.strip():
        raise EditRefused("There is no sentence yet.")
    if len(answer.text) > LONGEST_TEXT:
        raise EditRefused(f"A sentence has {LONGEST_TEXT} characters at most.")
    return Marked(Verdict.KEPT, ("Kept. Sentences are read by people, and not marked.",))


WORDS = Asking("write a sentence", (), asks_words, marked_words, checked_words, "", "text")
