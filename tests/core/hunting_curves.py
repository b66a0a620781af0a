"""Random curves, and what a dense scan sees of them that their landmarks do not say."""

from dataclasses import dataclass, field

import numpy as np

from axispath.core.path.curves.round import round_of
from axispath.core.path.curves.search import find_curve
from axispath.core.search.landmark import Kind
from axispath.core.sheet.curve import curve_of, range_of, slopes_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.resolve import resolve

SMOOTH = ("sin({} t)", "cos({} t)", "sin({} t + 1)", "cos({} t)^2", "t/{}", "t^2/{}", "e^(-t/{})")
ROUGH = ("|t - {}|", "1/(t + {})", "√(t + {})", "tan(t/{})", "floor(t/{})", "t^3/{}")
NEAR = 2e-3  # of the size of a curve, that a scan may be off by
BESIDE = 4  # segments of the scan beside a parameter that belong to it


def curve_lane(line):
    return resolve(apply(Document(), AddLane(text=line))).lanes[0]


def random_curve(chance):
    """Two coordinates, mostly of sines and cosines."""

    def term():
        form = chance.choice(SMOOTH if chance.random() < 0.85 else ROUGH)
        return form.format(chance.randint(1, 6))

    def coordinate():
        parts = [term() for _ in range(chance.randint(1, 3))]
        signs = [chance.choice((" + ", " - ", " * ")) for _ in parts[1:]]
        return parts[0] + "".join(s + p for s, p in zip(signs, parts[1:], strict=True))

    if chance.random() < 0.2:
        n, m = chance.randint(1, 7), chance.randint(1, 3)
        return f"r = {chance.randint(0, 3)} + {m} {chance.choice(('sin', 'cos'))}({n}θ/{m})"
    if chance.random() < 0.3:
        a, b = chance.randint(1, 9), chance.randint(1, 9)
        return f"(sin({a}t + {chance.randint(0, 3)}/2), cos({b}t))"
    ends = f" for {chance.randint(-4, 0)} <= t <= {chance.randint(1, 7)}"
    return f"({coordinate()}, {coordinate()}){ends if chance.random() < 0.7 else ''}"


@dataclass
class Looked:
    """What was found wrong, and whether the search left anything open."""

    open: bool
    faults: list = field(default_factory=list)


def disagreements(line, segments=1600, budget=20_000):
    """Compare the landmarks of a curve with a scan; None for a line that is no curve."""
    lane = curve_lane(line)
    if lane.error is not None or not lane.kind.figure:
        return None
    curve, span = curve_of(lane), range_of(lane)
    around = round_of(curve, span)
    found = find_curve(curve, slopes_of(lane), span, budget)
    t = np.linspace(around.low.x, around.high.x, segments + 1)
    x, y = curve.places(t)
    looked = Looked(bool(found.open) or found.more)
    if looked.open or not np.isfinite(x).all():
        return looked
    size = max(np.ptp(x), np.ptp(y), 1e-9)
    step = t[1] - t[0]
    looked.faults += _axes(found, t, x, y, step, size)
    looked.faults += _crossings(found, around, t, x, y, step, size)
    return looked


def _axes(found, t, x, y, step, size):
    """Changes of sign of a coordinate, and of its steps, that no landmark explains."""
    breaks = [mark.t for mark in found.of(Kind.JUMP, Kind.POLE, Kind.HOLE, Kind.KINK)]
    poles = [place for m in found.of(Kind.AT_POLE) for place in (m.t, *m.also)]
    corners = found.of(Kind.CUSP, Kind.STOP, Kind.START, Kind.END)
    faults = []
    for values, zero, turn in ((x, Kind.MEETS_Y, Kind.UPRIGHT), (y, Kind.MEETS_X, Kind.LEVEL)):
        if np.ptp(values) < 1e-9 * size:
            continue
        steps = np.diff(values)
        kinds = ((zero, values, 0.0), (turn, steps, step / 2))
        for kind, signs, shift in kinds:
            loud = np.abs(signs) > 1e-12 * size
            at = np.flatnonzero((signs[:-1] * signs[1:] < 0) & loud[:-1] & loud[1:])
            known = [mark.t for mark in (*found.of(kind), *corners)] + breaks + poles
            for place in t[at] + shift:
                if not any(abs(place - one) < 3 * step for one in known):
                    faults.append(f"{kind} near {place}")
    return faults


def _crossings(found, around, t, x, y, step, size):
    """Segments of the scan that cross and no landmark explains, and crossings it does not see."""
    gaps = [m.t for m in found.of(Kind.JUMP, Kind.POLE, Kind.HOLE)]
    broken = {int((gap - t[0]) / step) + k for gap in gaps for k in (-1, 0, 1)}
    pairs = [p for p in crossed_segments(x, y) if broken.isdisjoint(p)]
    marks = found.of(Kind.CROSSING, Kind.AT_POLE)
    places = [sorted((m.t, *m.also)) for m in marks]
    width = t[-1] - t[0]
    faults = []

    def near(one, other):
        away = abs(one - other)
        return min(away, abs(width - away) if around.closed else away) < BESIDE * step

    quiet = [m.t for m in found.of(Kind.CUSP, Kind.STOP, Kind.START, Kind.END, Kind.KINK)]
    for i, j in pairs:
        one, other = t[i] + step / 2, t[j] + step / 2
        known = any(
            any(near(one, a) for a in ts) and any(near(other, b) for b in ts) for ts in places
        )
        beside = near(one, other) and any(near(one, q) for q in quiet)
        if not known and not beside and not near(one, other):
            faults.append(f"a crossing near {one}, {other}")
    for mark in found.of(Kind.CROSSING):
        xs = np.interp([mark.t, *mark.also], t, x)
        ys = np.interp([mark.t, *mark.also], t, y)
        if np.ptp(xs) > NEAR * size * 10 or np.ptp(ys) > NEAR * size * 10:
            faults.append(f"no crossing at {mark.t}, {mark.also}")
    return faults


def crossed_segments(x, y):
    """Pairs of segments of a polyline that cross one another, neighbours left out."""
    ax, ay, bx, by = x[:-1], y[:-1], x[1:], y[1:]
    count = len(ax)

    def side(px, py, qx, qy, rx, ry):
        return (qx - px) * (ry - py) - (qy - py) * (rx - px)

    found = []
    for start in range(0, count, 200):
        i = np.arange(start, min(start + 200, count))[:, None]
        j = np.arange(count)[None, :]
        d1 = side(ax[i], ay[i], bx[i], by[i], ax[j], ay[j])
        d2 = side(ax[i], ay[i], bx[i], by[i], bx[j], by[j])
        d3 = side(ax[j], ay[j], bx[j], by[j], ax[i], ay[i])
        d4 = side(ax[j], ay[j], bx[j], by[j], bx[i], by[i])
        crossed = (d1 * d2 < 0) & (d3 * d4 < 0) & (j > i + 1)
        rows, columns = np.nonzero(crossed)
        found += [(int(r) + start, int(c)) for r, c in zip(rows, columns, strict=True)]
    return found
