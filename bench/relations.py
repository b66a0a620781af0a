"""Pictures of twenty relations at 900x600, their landmarks, and a redraw while a slider moves."""

from __future__ import annotations

import statistics

import numpy as np

from axispath.core.path.relations.rules import rules_of
from axispath.core.path.relations.search import find_relation
from axispath.core.plane.picture import curve_drawn
from axispath.core.plane.relation import relation_of
from axispath.core.plane.screen import Screen
from axispath.core.sampling.kinds import drawn
from axispath.core.search.budget import Budget
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, Slide, apply
from axispath.core.sheet.resolve import ResolvedLane, resolve
from bench.timing import median

RELATIONS = (
    *("x^2 + y^2 = 20", "x = 4", "x y = 3", "x^2 - y^2 = 1", "x^2 + x y + y^2 = 9"),
    *("y^2 = x^3 - x", "y^2 = x^3 - 3x + 2", "y^2 = x^2 (x + 1)", "x^3 + y^3 = 3x y"),
    *("(x^2 + y^2)^2 = 16 (x^2 - y^2)", "x^4 + y^4 = 81", "|x| + |y| = 3", "x = y^2"),
    *("y^2 = x^4 - x^2 + 1/8", "x^2 y + y^3 = 2x + 1", "sin x + sin y = 0.5"),
    *("e^x + e^y = x y + 5", "y = x sin y", "ln(x^2 + y^2) = x/3", "x^2 = y^3 - y + tan(x/4)"),
)
FRAME = Screen(-10, 10, -20 / 3, 20 / 3, 900, 600)
HARD = ("sin(x y) = cos x", "sin(1/(x y)) = 0.5", "x = x")


def _lane(line: str) -> ResolvedLane:
    return resolve(apply(Document(), AddLane(text=line))).lanes[0]


def report() -> None:
    """Print how long each picture and its landmarks take."""
    print(f"{len(RELATIONS)} relations at 900x600 (wanted: complete picture, median ≤ 150 ms)")
    pictures, searches, shares, settled = [], [], [], 0
    for line in (*RELATIONS, *HARD):
        lane = _lane(line)
        relation, rules = relation_of(lane), rules_of(lane)
        assert relation.curve is not None
        found = curve_drawn(relation, relation.curve, FRAME)
        took = median(lambda r=relation: curve_drawn(r, r.curve, FRAME), 5)
        if line in HARD:
            print(f"  {took:7.1f} ms  open {found.share:7.3%}            {line}")
            continue
        box = (FRAME.left, FRAME.right, FRAME.bottom, FRAME.top)
        path = find_relation(rules, relation, box, Budget())
        search = median(lambda a=rules, b=relation, c=box: find_relation(a, b, c, Budget()), 3)
        pictures.append(took)
        searches.append(search)
        shares.append(found.share)
        settled += path.complete
        marks = len(path.landmarks)
        print(f"  {took:7.1f} ms  {search:7.1f} ms for {marks:3} landmarks  {line}")
    print(
        f"picture: median {statistics.median(pictures):.1f} ms, slowest {max(pictures):.1f} ms, "
        f"open {max(shares):.4%} of the pixels at most"
    )
    print(
        f"landmarks: median {statistics.median(searches):.1f} ms, "
        f"{settled} of {len(RELATIONS)} complete"
    )
    _redraw()


def _redraw() -> None:
    document = apply(Document(), AddLane(text="a = 3", id="a"))
    document = apply(document, AddLane(text="x^2 + a x y + y^2 = 9", id="c"))
    values = iter(np.linspace(1, 9, 10_000))

    def once() -> None:
        moved = apply(document, Slide(id="a", value=float(next(values))))
        lane = resolve(moved).lane("c")
        assert lane is not None
        drawn(moved, lane, FRAME)

    print(f"redraw while a slider moves: {median(once, 40):.2f} ms a frame")
