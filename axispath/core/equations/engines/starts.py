"""Any number of equations: found numerically from starts, and then proved.

The starts are those typed, and further places spread evenly over the limits (J. H. Halton 1960,
Numerische Mathematik 2); from each a hybrid of Newton's method and the steepest descent is followed
(M. J. D. Powell 1970). What it ends at counts only where it is proved to be a solution.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from axispath.core.arithmetic.floats import bound_to_floats
from axispath.core.arithmetic.patience import time_check
from axispath.core.equations.engines.engine import Engine, Found, Place, Task
from axispath.core.quantities.scalars import real_ball

Floats = NDArray[np.float64]
SPREAD = 48  # places besides those that are typed
REACHES = (10.0, 1000.0, 1e6)
STEPS = 200
USUAL = 1.0
COST = 8_000  # evaluations of one unknown that following all starts is worth, roughly


def _takes(task: Task) -> bool:
    return len(task.core.unknowns) == len(task.core.differences)


def _solve(task: Task) -> Found:
    places = told_apart(from_starts(task))
    words = "found from starts and proved; there may be more"
    return Found(tuple(places), False, words, cost=COST)


def from_starts(task: Task) -> list[Place]:
    """The solutions that starts lead to, each as often as it is met."""
    # Loaded where it is needed: it takes longer than all else that a process begins with.
    from scipy.optimize import root

    equations = task.equations
    functions = [bound_to_floats(plan, task.unit) for plan in equations.plans]
    slopes = [[bound_to_floats(plan, task.unit) for plan in row] for row in equations.slopes]
    check = time_check()

    def values(place: Floats) -> Floats:
        with np.errstate(all="ignore"):
            return np.array([float(f.run(*place)) for f in functions])

    def jacobian(place: Floats) -> Floats:
        with np.errstate(all="ignore"):
            return np.array([[float(f.run(*place)) for f in row] for row in slopes])

    found: list[Place] = []
    for start in _starts(task):
        if check is not None:
            check()
        if not np.isfinite(values(start)).all() or not np.isfinite(jacobian(start)).all():
            continue
        try:
            end = root(values, start, jac=jacobian, options={"maxfev": STEPS})
        except (ValueError, FloatingPointError, np.linalg.LinAlgError):
            continue
        if not np.isfinite(end.x).all():
            continue
        proved = equations.zero_near(end.x.tolist())
        if proved is not None and task.inside(proved):
            found.append(task.exactly(proved))
            found = told_apart(found)
    return found


def _starts(task: Task) -> Iterator[Floats]:
    from scipy.stats import qmc

    limits = [task.limit(name) for name in task.core.unknowns]
    size = len(limits)
    yield np.array([_begin(one.low, one.high, one.start) for one in limits])
    spread = qmc.Halton(size, scramble=False).random(SPREAD // len(REACHES) + 1)[1:]
    for reach in REACHES:
        low = np.array([-reach if one.low is None else one.low for one in limits])
        high = np.array([reach if one.high is None else one.high for one in limits])
        for share in spread:
            yield low + (high - low) * share
        if all(one.low is not None and one.high is not None for one in limits):
            return


def _begin(low: float | None, high: float | None, start: float | None) -> float:
    if start is not None:
        return start
    if low is not None and high is not None:
        return (low + high) / 2
    return USUAL if low is None and high is None else low if low is not None else high or 0.0


def told_apart(places: list[Place]) -> list[Place]:
    """Each place once, in order."""
    kept: list[Place] = []
    for place in places:
        balls = [real_ball(one) for one in place]
        if not any(
            all(a.overlaps(real_ball(b)) for a, b in zip(balls, known, strict=True))
            for known in kept
        ):
            kept.append(place)
    return sorted(kept, key=lambda place: [float(real_ball(one).mid()) for one in place])


STARTS = Engine(_takes, _solve)
