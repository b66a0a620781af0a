"""A part of a sheet that is given to others: chosen lanes, and those that they need."""

from __future__ import annotations

import re
from collections.abc import Collection

from axispath.core.sheet.document import Document, Lane

NAME = re.compile(r"[^\W\d]\w*")


def given_out(document: Document, lanes: Collection[str] | None) -> Document:
    """The document with some lanes alone, and those that these are made of; None for all.

    A lane that is only needed comes along hidden. Any word of a line that is a name of the sheet
    counts as needed: rather one lane too many than one that is missing.
    """
    if lanes is None:
        return document
    named: dict[str, list[Lane]] = {}
    for lane in document.lanes:
        for name in _names(lane):
            named.setdefault(name, []).append(lane)
    kept: set[str] = set()
    pending = [lane for lane in document.lanes if lane.id in lanes]
    while pending:
        lane = pending.pop()
        if lane.id not in kept:
            kept.add(lane.id)
            for word in _words(lane):
                pending += named.get(word, ())
            if lane.fit is not None:
                pending += [one for one in document.lanes if one.id == lane.fit.data]
    found = tuple(
        lane if lane.id in lanes else lane.model_copy(update={"hidden": True})
        for lane in document.lanes
        if lane.id in kept
    )
    there = {lane.id for lane in found}
    questions = tuple(
        one
        for one in document.questions
        if {one.lane, one.other, *(lane for lane, _ in one.aim)} - {""} <= there
    )
    return document.model_copy(update={"lanes": found, "questions": questions})


def without_answers(document: Document) -> Document:
    """The document without what would tell the answers of its questions."""
    questions = tuple(one.model_copy(update={"aim": ()}) for one in document.questions)
    return document.model_copy(update={"questions": questions})


def _names(lane: Lane) -> set[str]:
    """What a line defines: its name, the coordinates of a point, columns, unknowns."""
    if lane.block is not None:
        return set(NAME.findall(lane.block.text))
    if lane.data is not None:
        return {lane.text, *(column.name for column in lane.data.columns)}
    first = NAME.search(lane.text) if "=" in lane.text else None
    name = lane.name or (first.group() if first else "")
    return {name, f"{name}_x", f"{name}_y"} if name else set()


def _words(lane: Lane) -> set[str]:
    typed = [lane.text, lane.levels, lane.samples.amount]
    typed += [lane.slider.low, lane.slider.high, lane.slider.step]
    if lane.block is not None:
        typed.append(lane.block.text)
    if lane.data is not None:
        typed += [column.formula for column in lane.data.columns]
    return {word for text in typed for word in NAME.findall(text)}
