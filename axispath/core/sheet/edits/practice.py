"""Edits of what a sheet is practised with: its cover and its questions."""

from __future__ import annotations

from typing import Literal

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits.change import Change
from axispath.core.sheet.practice import MOST_QUESTIONS, Cover, Question, Ref
from axispath.core.sheet.refused import EditRefused


class SetCover(Change):
    """Cover landmarks, or uncover them all."""

    do: Literal["set cover"] = "set cover"
    cover: Cover

    def applied(self, document: Document) -> Document:
        if document.cover.fixed:
            raise EditRefused("Whoever handed this out has covered the landmarks.")
        return document.model_copy(update={"cover": self.cover})

    def words(self, document: Document) -> str:
        return "covering landmarks" if self.cover.on else "uncovering landmarks"


class SetQuestion(Change):
    """A question as it is to be; a new one at the end where it has no name yet."""

    do: Literal["set question"] = "set question"
    question: Question

    def applied(self, document: Document) -> Document:
        questions = document.questions
        wanted = self.question
        if not wanted.id:
            if len(questions) >= MOST_QUESTIONS:
                raise EditRefused(f"A sheet can have {MOST_QUESTIONS} questions.")
            taken = {one.id for one in questions}
            free = next(k for k in range(1, len(taken) + 2) if f"q{k}" not in taken)
            wanted = wanted.model_copy(update={"id": f"q{free}"})
            return document.model_copy(update={"questions": (*questions, wanted)})
        if all(one.id != wanted.id for one in questions):
            raise EditRefused("This question is not on the sheet any more.")
        changed = tuple(wanted if one.id == wanted.id else one for one in questions)
        return document.model_copy(update={"questions": changed})

    def words(self, document: Document) -> str:
        return "a question"


class RemoveQuestion(Change):
    """A question deleted."""

    do: Literal["remove question"] = "remove question"
    id: Ref

    def applied(self, document: Document) -> Document:
        left = tuple(one for one in document.questions if one.id != self.id)
        return document.model_copy(update={"questions": left})

    def words(self, document: Document) -> str:
        return "deleting a question"


class MoveQuestion(Change):
    """A question put before the others by so many places."""

    do: Literal["move question"] = "move question"
    id: Ref
    by: Literal[-1, 1]

    def applied(self, document: Document) -> Document:
        questions = list(document.questions)
        at = next((k for k, one in enumerate(questions) if one.id == self.id), None)
        if at is None or not 0 <= at + self.by < len(questions):
            return document
        questions.insert(at + self.by, questions.pop(at))
        return document.model_copy(update={"questions": tuple(questions)})

    def words(self, document: Document) -> str:
        return "the order of the questions"
