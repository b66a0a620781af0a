"""The demo sheets as documents. Places, ships and numbers are made up."""

from __future__ import annotations

from functools import cache

from axispath.core.path.framing import settled
from axispath.core.sheet.block import Block, Unknown
from axispath.core.sheet.document import Document, Equation, Slider, Style, Table, View
from axispath.core.sheet.edits import (
    AddBlock,
    AddData,
    AddFit,
    AddLane,
    AddWork,
    KeepEquation,
    SetBlock,
    SetColumn,
    SetGround,
    SetLevels,
    SetNote,
    SetRows,
    SetSlider,
    SetStyle,
    SetSystem,
    ShowLane,
    Slide,
    apply,
    with_view,
)
from axispath.demo.practice import hawser, water_in_the_lock

FERRY_WINDOW = (
    "h(x) = 3.1 + swing sin(2π (x - 2) / 12.4) for 0 <= x <= 24",
    "d(x) = 2.6 for 0 <= x <= 24",
    "swing = 1.4",
)
SWING = Slider(low="0.3", high="2", step="0.05")


@cache
def ferry_window() -> Document:
    """Tide height over a day against the depth that the ferry needs."""
    document = Document(name="Ferry window", tables=(Table(start="0", stop="24", step="1"),))
    document = _with_lanes(document, FERRY_WINDOW)
    document = apply(document, SetSlider(id="lane3", slider=SWING))
    return apply(document, SetNote(id="lane3", note="2 m at spring tide, half of it at neap tide"))


def _with_lanes(document: Document, lines: tuple[str, ...]) -> Document:
    empty = document
    for number, line in enumerate(lines, 1):
        document = apply(document, AddLane(text=line, id=f"lane{number}"))
    return settled(empty, document)


SLIPWAY = (
    "s(x) = 2.5 if x < 4, 2.5 - (x - 4)/6 if x < 34, -2.5 otherwise for 0 <= x <= 40",
    "w(x) = tide + 0.15 sin(x) for 0 <= x <= 40",
    "tide = 0.4",
    "keel(x) = s(x) + 0.9 for x in [4, 34)",
)
LAMP_RANGE = (
    "E(x) = lamp/x^2 for x > 0",
    "need(x) = 0.2 for x > 0",
    "lamp = 80",
    "haze(x) = E(x) e^(-x/15) for x > 0",
    "glare(x) = 3/(x - 6)",
)


@cache
def slipway() -> Document:
    """A slipway of level and sloping parts: where the water meets it, and where a keel floats."""
    table = Table(start="0", stop="40", step="4", columns=("s(x)", "w(x)", "w(x) - s(x)"))
    heights = Table(
        id="table2",
        variable="tide",
        start="-1",
        stop="1",
        step="0.25",
        columns=("w(10)", "4 + 6(2.5 - tide)"),
    )
    document = Document(name="Slipway", tables=(table, heights))
    document = _with_lanes(document, SLIPWAY)
    document = apply(document, SetSlider(id="lane3", slider=Slider(low="-2", high="2", step="0.1")))
    document = apply(
        document, SetNote(id="lane1", note="level, then 1 m down in every 6, then level")
    )
    document = apply(document, SetNote(id="lane4", note="a boat on its cradle needs 0.9 m more"))
    for line in ("w(x) >= keel(x)", "w(x) = s(x)"):
        equation = Equation(text=line, low="0", high="40")
        document = apply(document, KeepEquation(equation=equation))
    return document


@cache
def lamp_range() -> Document:
    """How far a lamp is seen, in clear air and in haze; a reflex that dazzles at one distance."""
    table = Table(by="list", places="1, 2, 5, 10, 15, 20, 30", changes="ratios")
    document = Document(name="Lamp range", tables=(table,))
    document = _with_lanes(document, LAMP_RANGE)
    document = apply(document, SetSlider(id="lane3", slider=Slider(low="10", high="200", step="5")))
    document = with_view(document, View(left=-2, right=32, bottom=-1.2, top=2.4, chosen=True))
    for line, low, high in (
        ("haze(x) < need(x)", "0", "60"),
        ("E(x) = need(x)", "0", "∞"),
        ("haze(x) = need(x)", "0", "60"),
    ):
        equation = Equation(text=line, low=low, high=high)
        document = apply(document, KeepEquation(equation=equation))
    return document


BUOY = (
    "B(t) = (sway sin(t) + 0.3 sin(3t), 0.8 cos(2t)) for 0 <= t <= 2π",
    "sway = 2.4",
    "P = B(time)",
    "time = 1",
    "quay(x) = 1.3 - 0.2 x",
)
LENS = (
    "r = edge + ripple cos(petals θ)",
    "edge = 1",
    "ripple = 2",
    "petals = 3",
    "r_1(θ) = edge",
)


@cache
def buoy_on_its_mooring() -> Document:
    """A buoy that swings about its mooring, seen from above, in metres, over one tide."""
    table = Table(variable="t", by="count", start="0", stop="2π", count="13")
    document = Document(name="Buoy on its mooring", tables=(table,))
    document = _with_lanes(document, BUOY)
    document = apply(document, SetSlider(id="lane2", slider=Slider(low="1", high="4", step="0.1")))
    document = apply(document, SetSlider(id="lane4", slider=Slider(low="0", high="2π")))
    document = apply(document, SetStyle(id="lane3", style=Style(trail="curve", place=True)))
    document = apply(document, Slide(id="lane1", value=2.0))
    document = apply(document, SetNote(id="lane1", note="where the buoy is during one tide"))
    return apply(document, SetNote(id="lane5", note="the edge of the quay"))


@cache
def lens_pattern() -> Document:
    """The pattern that the lamp's lens throws on a wall, about the middle of its beam."""
    table = Table(variable="θ", by="count", start="0", stop="2π", count="25")
    document = Document(name="Lens pattern", tables=(table,))
    document = _with_lanes(document, LENS)
    ground = document.ground.model_copy(update={"grid": "polar", "equal": True})
    document = apply(document, SetGround(ground=ground))
    for lane, slider in (
        ("lane2", Slider(low="0", high="3", step="0.1")),
        ("lane3", Slider(low="0", high="3", step="0.1")),
        ("lane4", Slider(low="1", high="12", kind="whole")),
    ):
        document = apply(document, SetSlider(id=lane, slider=slider))
    return document


ANCHORAGE = (
    "x^2 + y^2 <= reach^2 and y >= 0.4 x + 0.5 and y <= 6",
    "reach = 7",
    "(x + 3)^2 + (y - 4)^2 = 2.25",
    "x = 2.5",
    "P = (1, 3)",
)


@cache
def safe_anchorage() -> Document:
    """Where boats may lie: within reach of the pier, off the shore, clear of the shoal."""
    document = Document(name="Safe anchorage")
    document = _with_lanes(document, ANCHORAGE)
    ground = document.ground.model_copy(update={"equal": True})
    document = apply(document, SetGround(ground=ground))
    slider = Slider(low="4", high="9", step="0.5")
    document = apply(document, SetSlider(id="lane2", slider=slider))
    for lane, note in (
        ("lane1", "within reach of the pier, off the shore and south of the channel"),
        ("lane3", "the edge of the shoal"),
        ("lane4", "the line of the two lamps"),
        ("lane5", "where the boat lies"),
    ):
        document = apply(document, SetNote(id=lane, note=note))
    return document


BAY = (
    "depth(x, y) = 12 - (x - 1)^2/4 - (y + 1)^2/2 + 3 sin(x) cos(y)",
    "draught = 6",
    "depth(x, y) >= draught",
    "course(x) = x/2 - 2",
)


@cache
def chart_of_the_bay() -> Document:
    """The depth of a bay in metres over a chart in cables, and where a ship has water enough."""
    document = Document(name="Chart of the bay")
    document = _with_lanes(document, BAY)
    slider = Slider(low="2", high="12", step="0.5")
    document = apply(document, SetSlider(id="lane2", slider=slider))
    document = apply(document, SetLevels(id="lane1", levels="0, 2, 4, 6, 8, 10, 12, 14"))
    for lane, note in (
        ("lane1", "the depth, in metres"),
        ("lane3", "where there is water enough"),
        ("lane4", "the course of the ferry"),
    ):
        document = apply(document, SetNote(id=lane, note=note))
    return document


ENGINE = (
    *("0 14.2 0", "1 31.9 2.1", "2 44.6 4.3", "3 53.8 6.2", "4 60.9 8.4", "5 66.2 10.3"),
    *("6 - 12.6", "7 72.9 14.5", "8 75.4 16.7", "9 30.5 18.5", "10 78.3 20.8", "12 80.4 24.9"),
    *("14 81.2 29.1", "16 82.1 33.2", "18 82.0 37.5", "20 82.6 41.6"),
)
BAD_ROW = 9  # somebody touched the sensor


@cache
def engine_log() -> Document:
    """The heat of a cooling circuit after the start: a bad row, a gap, a fit that is no line."""
    heads = "minutes\theat [°C]\tfuel [l]"
    text = "\n".join([heads, *(row.replace(" ", "\t") for row in ENGINE)])
    document = Document(name="Engine log")
    document = apply(document, AddData(text=text, name="engine log", id="lane1"))
    document = apply(document, SetRows(id="lane1", act="leave out", row=BAD_ROW))
    rate = SetColumn(id="lane1", index=3, name="per_minute", formula="step(fuel)/step(minutes)")
    document = apply(document, rate)
    document = apply(
        document,
        AddFit(
            data="lane1",
            x="minutes",
            y="heat",
            model="own",
            formula="a - b e^(-c x)",
            id="lane2",
        ),
    )
    document = apply(document, AddFit(data="lane1", x="minutes", y="heat", id="lane3"))
    document = apply(document, AddLane(text="limit(x) = 80", id="lane4"))
    for lane, note in (
        ("lane1", "the sensor was touched in one row, which is left out"),
        ("lane3", "a line leaves a bend in the residuals"),
        ("lane4", "above it the thermostat opens"),
    ):
        document = apply(document, SetNote(id=lane, note=note))
    view = View(left=-2, right=22, bottom=-10, top=110)
    return with_view(document, view)


SALES = "40 adult + 25 child = 690\n30 adult + 50 child = 755"
TICKETS = (
    "A = [40, 25; 30, 50]",
    "b = [690; 755]",
    "A^-1·b",
    "p = solution(A, [690, 755])",
    "p[1]/p[2]",
    "det(A)",
    "share = 690/(690 + 755)",
    "√12 · 5/3",
    "(2 - 5i)^2",
    "w = roots(3, 8)",
)


@cache
def ticket_office() -> Document:
    """Two days of tickets: the prices by a linear system, and what a boat of sixty brings in."""
    document = Document(name="Ticket office")
    document = apply(document, SetSystem(text=SALES))
    for number, line in enumerate(TICKETS, 1):
        document = apply(document, AddWork(text=line, id=f"line{number}"))
    for number, line in enumerate(
        (
            "40x + 25y = 690",
            "30x + 50y = 755",
            "income(x) = p[1] x + p[2] (60 - x) for 0 <= x <= 60",
        ),
        1,
    ):
        document = apply(document, AddLane(text=line, id=f"lane{number}"))
    for lane, note in (
        ("lane1", "Saturday: 40 adults and 25 children"),
        ("lane2", "Sunday: 30 adults and 50 children"),
        ("lane3", "a boat of sixty, x of them adults"),
    ):
        document = apply(document, SetNote(id=lane, note=note))
    document = apply(document, ShowLane(id="lane3", shown=False))
    return with_view(document, View(left=-2, right=26, bottom=-2, top=20))


LIFTING = """rope = load/4
load = mass g
mass = cargo kg + 60 kg
stress = rope/area
area = π d^2/4
d = 12 mm
share = rope/(6 kN)"""
BOOM = """reach^2 + height^2 = 14^2
height = reach + rise"""


@cache
def crane_load() -> Document:
    """What a crane lifts: the pull in its ropes, and how far its boom of 14 m reaches."""
    document = Document(name="Crane load")
    for lane_id, line, note in (
        ("cargo", "cargo = 790", "kilograms on the hook, without its 60 kg"),
        ("rise", "rise = 4", "metres by which the boom is higher than it reaches"),
        ("boom", "boom(x) = x height/reach for 0 <= x <= reach", "the boom, from the quay's edge"),
        ("tip", "Tip = (reach, height)", ""),
    ):
        if lane_id == "boom":
            document = apply(document, AddBlock(text=LIFTING, id="lifting"))
            document = apply(document, AddBlock(text=BOOM, id="reaching"))
            said = Block(text=BOOM, unknowns=(Unknown(name="reach", low="0"),))
            document = apply(document, SetBlock(id="reaching", block=said))
        document = apply(document, AddLane(text=line, id=lane_id))
        document = apply(document, SetNote(id=lane_id, note=note))
    for lane_id, slider in (
        ("cargo", Slider(low="0", high="3000", step="10")),
        ("rise", Slider(low="-8", high="8", step="0.1")),
    ):
        document = apply(document, SetSlider(id=lane_id, slider=slider))
    for number, line in enumerate(("stress in MPa", "share"), 1):
        document = apply(document, AddWork(text=line, id=f"line{number}"))
    ground = document.ground.model_copy(update={"equal": True})
    document = apply(document, SetGround(ground=ground))
    return with_view(document, View(left=-2, right=16, bottom=-2, top=14))


DEMOS = {
    "ferry-window": ferry_window,
    "slipway": slipway,
    "lamp-range": lamp_range,
    "buoy": buoy_on_its_mooring,
    "lens": lens_pattern,
    "anchorage": safe_anchorage,
    "bay": chart_of_the_bay,
    "engine": engine_log,
    "tickets": ticket_office,
    "crane": crane_load,
    "lock": water_in_the_lock,
    "hawser": hawser,
}
