"""Two equations in two unknowns: all common zeros in a rectangle, each proved."""

from __future__ import annotations

from axispath.core.equations.engines.engine import Engine, Found, Place, Task
from axispath.core.equations.engines.starts import COST, from_starts, told_apart
from axispath.core.language.numbers import decimal
from axispath.core.search.budget import Budget
from axispath.core.search.common_zeros import Pair, solve

EVALUATIONS = 4_000
REACHES = (1000.0, 10.0)  # how far is looked without limits; the nearer where that is too far


def _takes(task: Task) -> bool:
    return len(task.core.unknowns) == len(task.core.differences) == 2


def _solve(task: Task) -> Found:
    equations = task.equations
    slopes = [plan for row in equations.slopes for plan in row]
    pair = Pair.of([*equations.plans, *slopes], task.unit)
    for reach in REACHES:
        sides = [_side(task, name, reach) for name in task.core.unknowns]
        rectangle = (*sides[0], *sides[1])
        solved = solve(pair, rectangle, Budget(EVALUATIONS))
        if not solved.spent and not len(solved.open):
            break
        if all(_bounded(task, name) for name in task.core.unknowns):
            break
    places: list[Place] = []
    for zero in solved.zeros:
        proved = equations.zero_near((zero.x, zero.y))
        if proved is not None and task.inside(proved):
            places.append(task.exactly(proved))
    settled = not solved.spent and not len(solved.open) and len(places) == len(solved.zeros)
    bounded = all(_bounded(task, name) for name in task.core.unknowns)
    first, second = task.core.unknowns
    words = " and ".join(
        f"{name} from {decimal(low, 6)} to {decimal(high, 6)}"
        for name, (low, high) in zip((first, second), sides, strict=True)
    )
    if not bounded or not settled:
        # Starts may lead beyond what was looked through.
        places = told_apart([*places, *from_starts(task)])
    if not settled:
        told = f"not all of {words} was settled: there may be more"
        return Found(tuple(places), False, told, cost=COST)
    if not bounded:
        told = f"all with {words}; beyond that there may be more"
        return Found(tuple(places), False, told, cost=COST)
    return Found(tuple(places), True, f"with {words}", cost=EVALUATIONS)


def _bounded(task: Task, name: str) -> bool:
    limit = task.limit(name)
    return limit.low is not None and limit.high is not None


def _side(task: Task, name: str, reach: float) -> tuple[float, float]:
    limit = task.limit(name)
    low = limit.low if limit.low is not None else min(-reach, (limit.high or 0.0) - reach)
    high = limit.high if limit.high is not None else max(reach, (limit.low or 0.0) + reach)
    return (low, high) if low < high else (high, low)


PAIR = Engine(_takes, _solve)
