"""Paths of the lanes of a sheet, remembered for as long as the lanes stay the same."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TypeVar, cast

import numpy as np

from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import Definition, Program
from axispath.core.language.tree import Call, FunctionStatement, Name, Negation, Sum
from axispath.core.path.find import EVALUATIONS, find_path, find_zeros
from axispath.core.path.landmark import Kind, Path
from axispath.core.sheet.resolve import ResolvedLane

REMEMBERED = 64
MOST_CROSSED = 12
IN_ALL = 40_000  # evaluations that one look at a sheet may take, shared by its searches
LEAST = 300
Result = TypeVar("Result")


def interval(lane: ResolvedLane, left: float, right: float) -> tuple[End, End] | None:
    """Where to look for landmarks: the whole domain, or the view where the domain has no end.

    None where a half-open domain lies outside the view.
    """
    low, high = lane.ends
    low = low or End.at(left)
    high = high or End.at(right)
    return (low, high) if low.ball < high.ball else None


def path_of(
    lane: ResolvedLane, left: float, right: float, evaluations: int = EVALUATIONS
) -> Path | None:
    """The path of a lane in a view from ``left`` to ``right``."""
    ends = interval(lane, left, right)
    if ends is None:
        return None
    key = (ends[0].x, ends[1].x, evaluations)
    return _remembered(lane, key, lambda: find_path(lane.program, lane.unit, *ends, evaluations))


def share(count: int) -> int:
    """How many evaluations each of ``count`` searches of one look at a sheet may take."""
    return max(LEAST, min(EVALUATIONS, IN_ALL // max(count, 1)))


def _remembered(lane: ResolvedLane, key: tuple[object, ...], work: Callable[[], Result]) -> Result:
    memory = lane.memory
    if key not in memory:
        while len(memory) >= REMEMBERED:
            memory.pop(next(iter(memory)), None)
        memory[key] = work()
    return cast(Result, memory[key])


@dataclass(frozen=True, slots=True)
class Crossing:
    """Where two lanes meet."""

    first: ResolvedLane
    second: ResolvedLane
    path: Path


def crossings(lanes: list[ResolvedLane], left: float, right: float) -> list[Crossing]:
    """The intersections of every two lanes on what their domains have in common.

    Of more than MOST_CROSSED lanes the first ones only.
    """
    lanes = lanes[:MOST_CROSSED]
    evaluations = share(len(lanes) * (len(lanes) - 1) // 2)
    found = []
    for first, second in itertools.combinations(lanes, 2):
        path = _crossing(first, second, left, right, evaluations)
        if path is not None:
            found.append(Crossing(first, second, path))
    return found


def _crossing(
    first: ResolvedLane, second: ResolvedLane, left: float, right: float, evaluations: int
) -> Path | None:
    ends = [interval(lane, left, right) for lane in (first, second)]
    if ends[0] is None or ends[1] is None:
        return None
    low = max(ends[0][0], ends[1][0], key=lambda end: end.x)
    high = min(ends[0][1], ends[1][1], key=lambda end: end.x)
    if not low.ball < high.ball:
        return None
    key = (second.program, low.x, high.x, evaluations)

    def work() -> Path:
        plan = _difference(first, second)
        path = find_zeros(plan, first.unit, low, high, Kind.INTERSECTION, evaluations)
        heights = first.floats(np.array([mark.x for mark in path.landmarks], dtype=float))
        marks = (
            replace(mark, y=float(y) + 0.0) for mark, y in zip(path.landmarks, heights, strict=True)
        )
        return replace(path, landmarks=tuple(marks))

    return _remembered(first, key, work)


def _difference(first: ResolvedLane, second: ResolvedLane) -> Program:
    """first − second as a program of x, without their own domains."""
    sides = {"first side": _rule(first), "second side": _rule(second)}
    calls = [Call(name, (Name("x"),)) for name in sides]
    return program(Sum((calls[0], Negation(calls[1]))), ("x",), {**first.definitions, **sides})


def _rule(lane: ResolvedLane) -> Definition:
    assert isinstance(lane.statement, FunctionStatement)
    return Definition(lane.statement.parameters, lane.statement.body)
