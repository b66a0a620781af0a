"""A page of two hundred lines of calculation, computed again after its first line has changed."""

from __future__ import annotations

import time

from axispath.core.sheet.block import Block
from axispath.core.sheet.document import Document, Lane
from axispath.core.sheet.edits import ReviseLane, Slide, apply
from axispath.core.sheet.resolve import resolve
from axispath.core.table.results.blocks import told
from axispath.core.table.results.result import result_of
from bench.timing import median

LINES = 200
KINDS = (
    "{a} + {n}/7",
    "√({a}^2 + {n})",
    "sin({a} + {n}°)",
    "{a} ({n} - 2i)/(1 + i)",
    "det([{a}, {n}; 1, {a}])",
    "[{a}, 1; 2, {n}]^-1",
    "e^({a}/{n})",
    "mean([{a}, {n}, 3])",
    "|{a} - {n}i|",
    "({a} + 1)/({a} + {n})",
)


def _page() -> Document:
    lanes = [Lane(id="line0", text="a = 3", working=True)]
    for n in range(1, LINES):
        text = KINDS[n % len(KINDS)].format(a="a", n=n)
        lanes.append(Lane(id=f"line{n}", text=f"r_{n} = {text}", working=True))
    return Document(lanes=tuple(lanes))


def _computed(document: Document) -> list[str]:
    return [result_of(document, lane).text for lane in resolve(document).working]


CHAIN = 30


def _block() -> None:
    """Thirty equations that hang together, with a slider in the first and a curve on the last."""
    equations = ["a_1 = k + 1", *(_step(n) for n in range(2, CHAIN + 1))]
    lanes = (
        Lane(id="k", text="k = 2"),
        Lane(id="block", text="", block=Block(text="\n".join(equations)), working=True),
        Lane(id="curve", text=f"f(x) = a_{CHAIN} x"),
    )
    document = Document(lanes=lanes)
    value = iter(range(3, 10**6))

    def moved() -> Document:
        return apply(document, Slide(id="k", value=next(value) / 1000))

    def curve() -> None:
        lane = resolve(moved()).lane("curve")
        assert lane is not None and lane.ready

    def all_told() -> None:
        changed = moved()
        lane = resolve(changed).lane("block")
        assert lane is not None and told(changed, lane).groups[0].solutions == 1

    print(f"a block of {CHAIN} equations with a slider in it, the slider moved:")
    print(f"  the sheet, with a curve that uses the last answer: {median(curve, 20):.1f} ms")
    print(f"  all answers, ready to be shown: {median(all_told, 20):.1f} ms")


def _step(n: int) -> str:
    if n % 5 == 0:
        return f"a_{n}^3 + a_{n} = a_{n - 1}"
    if n % 3 == 0:
        return f"2a_{n} = √(a_{n - 1} + {n})"
    return f"a_{n - 1} = 3a_{n} - {n}"


def report() -> None:
    """Print how long a change of the first line takes, the edit and all results."""
    document = _page()
    _computed(document)
    value = iter(range(4, 10**6))

    def revised() -> Document:
        return apply(document, ReviseLane(id="line0", text=f"a = {next(value)}"))

    def changed() -> None:
        lane = document.lanes[0].model_copy(update={"text": f"a = {next(value)}"})
        _computed(document.with_lane(lane))

    print(f"{LINES} lines of calculation, the first one changed:")
    print(f"  all results: {median(changed, 20):.1f} ms (wanted 60)")
    print(f"  the edit, with its checks: {median(revised, 20):.1f} ms")
    _block()
    start = time.perf_counter()
    hilbert = "[" + "; ".join(", ".join(f"1/{i + k + 1}" for k in range(12)) for i in range(12))
    one = Document(lanes=(Lane(id="h", text=f"{hilbert}]^-1", working=True),))
    _computed(one)
    print(f"  a Hilbert matrix of 12 inverted: {(time.perf_counter() - start) * 1000:.1f} ms")
