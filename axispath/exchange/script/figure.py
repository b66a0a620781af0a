"""The shown lanes as a picture that Matplotlib draws."""

from __future__ import annotations

from collections.abc import Callable

from axispath.core.language.numbers import full_precision
from axispath.core.sheet.curve import range_of
from axispath.core.sheet.document import Document
from axispath.core.sheet.levels import levels_of
from axispath.core.sheet.palette import LIGHT, dash_of, width_of
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import ResolvedLane
from axispath.exchange.script.expressions import identifier
from axispath.exchange.script.measured import MOST_ROWS
from axispath.exchange.script.section import Section
from axispath.exchange.script.texts import plainly

DENSE = 2_001  # places along a curve
ACROSS = 401  # places along each side of the plane


def figure(document: Document, lanes: list[ResolvedLane]) -> Section:
    """The picture of some lanes in the view of the sheet."""
    view, ground = document.view, document.ground
    left, right, bottom, top = (
        full_precision(v) for v in (view.left, view.right, view.bottom, view.top)
    )
    lines = [
        "figure, axes = plt.subplots(figsize=(9, 6))",
        f"along = np.linspace({left}, {right}, {DENSE})",
        f"plane = np.meshgrid(np.linspace({left}, {right}, {ACROSS}), "
        f"np.linspace({bottom}, {top}, {ACROSS}))",
    ]
    for lane in lanes:
        draw = DRAWN_BY.get(lane.kind.key)
        if draw is not None:
            lines += draw(document, lane)
    labels = document.axis_labels
    lines += [
        f"axes.set_xlim({left}, {right})",
        f"axes.set_ylim({bottom}, {top})",
        "axes.grid(alpha=0.3)",
        f"axes.set_xlabel({plainly(labels[0] or 'x')})",
        f"axes.set_ylabel({plainly(labels[1] or 'y')})",
    ]
    lines += ['axes.set_aspect("equal")'] if ground.equal else []
    title = ground.title or ("" if document.name == Document().name else document.name)
    lines += [f"axes.set_title({plainly(title)})"] if title else []
    lines += ["if axes.get_legend_handles_labels()[0]:", "    axes.legend()", "plt.show()"]
    return Section("Picture", "The shown lanes in the view of the sheet.", "\n".join(lines))


def _name(lane: ResolvedLane) -> str:
    return identifier(str(lane.name))


def _how(lane: ResolvedLane) -> str:
    return (
        f"color={LIGHT.colour_of(lane.lane)!r}, label={plainly(str(lane.name or lane.lane.text))}"
    )


def _stroke(lane: ResolvedLane, many: str = "") -> str:
    """How a line is drawn: its width and its dashes, which Matplotlib counts in widths."""
    width = width_of(lane.lane)
    dash = tuple(round(part / width, 2) for part in dash_of(lane.lane))
    style = f"[(0, {dash!r})]" if many else f"(0, {dash!r})"
    style = f", linestyle{many}={style}" if dash else ""
    return f"linewidth{many}={width!r}{style}"


def _function(document: Document, lane: ResolvedLane) -> list[str]:
    view = document.view
    low, high = 2 * view.bottom - view.top, 2 * view.top - view.bottom
    near = f"(y > {full_precision(low)}) & (y < {full_precision(high)})"
    return [
        f"y = {_name(lane)}(along)",
        f"y = np.where({near}, y, np.nan)  # far out of the picture nothing is joined",
        f"axes.plot(along, y, {_how(lane)}, {_stroke(lane)})",
    ]


def _curve(document: Document, lane: ResolvedLane) -> list[str]:
    span = range_of(lane)
    ends = f"{full_precision(span.low.x)}, {full_precision(span.high.x)}"
    places = f"np.linspace({ends}, {DENSE})"
    return [f"axes.plot(*{_name(lane)}({places}), {_how(lane)}, {_stroke(lane)})"]


def _point(document: Document, lane: ResolvedLane) -> list[str]:
    x, y = identifier(f"{lane.name}_x"), identifier(f"{lane.name}_y")
    return [f'axes.plot({x}, {y}, "o", {_how(lane)})']


def _relation(document: Document, lane: ResolvedLane) -> list[str]:
    colour = LIGHT.colour_of(lane.lane)
    drawn = f"colors={colour!r}, {_stroke(lane, 's')}"
    return [f"axes.contour(*plane, {_name(lane)}(*plane), [0], {drawn})"]


def _region(document: Document, lane: ResolvedLane) -> list[str]:
    colour = LIGHT.colour_of(lane.lane)
    inside = f"1.0 * {_name(lane)}(*plane)"
    return [f"axes.contourf(*plane, {inside}, [0.5, 1.5], colors={colour!r}, alpha=0.25)"]


def _map(document: Document, lane: ResolvedLane) -> list[str]:
    try:
        levels = sorted(levels_of(document, lane, document.view))
    except EditRefused:
        return []
    given = ", ".join(full_precision(v) for v in levels)
    colour = LIGHT.colour_of(lane.lane)
    if not levels:
        return []
    return [f"axes.contour(*plane, {_name(lane)}(*plane), [{given}], colors={colour!r})"]


def _data(document: Document, lane: ResolvedLane) -> list[str]:
    data = lane.lane.data
    if data is None or data.look != "points" or not data.upwards or data.rows > MOST_ROWS:
        return []
    x, y = identifier(data.across), identifier(data.upwards)
    return [f'axes.plot({x}, {y}, "o", {_how(lane)})']


DRAWN_BY: dict[str, Callable[[Document, ResolvedLane], list[str]]] = {
    "function": _function,
    "parametric": _curve,
    "polar": _curve,
    "point": _point,
    "relation": _relation,
    "region": _region,
    "map": _map,
    "data": _data,
}
"""How Matplotlib draws each kind of lane."""
