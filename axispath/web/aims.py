"""The faint curves onto which others are to be brought."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace

from axispath.core.arithmetic.patience import OutOfTime, Patience
from axispath.core.practice.kinds.match import aimed
from axispath.core.sampling.kinds import DRAWN, drawn
from axispath.core.sampling.primitives import Label, Primitive
from axispath.core.sampling.states import Drawing
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve


def aims(document: Document, frame: Frame, patience: Patience) -> Iterator[Drawing]:
    """For each question that wants it the curve at its aim, under the name of “aim” and the lane.

    Where it is, is drawn; what its sliders are there is told nobody.
    """
    for question in document.questions:
        if question.kind != "match":
            continue
        with suppress(EditRefused, OutOfTime):
            there = aimed(document, question)
            lane = resolve(there).lane(question.lane)
            if lane is None or not lane.ready or not lane.can(DRAWN) or lane.lane.hidden:
                continue
            shapes = drawn(there, lane, frame, patience)
            faint: list[Primitive] = [
                replace(one, faint=True) for one in shapes if not isinstance(one, Label)
            ]
            yield f"aim {question.lane}", faint
