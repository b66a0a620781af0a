"""The keys of the sheet page, as its list of keys shows them."""

from __future__ import annotations

Row = tuple[tuple[str, ...], str]
KEYS: tuple[tuple[str, tuple[Row, ...]], ...] = (
    (
        "Reading, with the plot in focus",
        (
            (("←", "→"), "move the reading line; with Shift ten times as far"),
            ((",", "."), "to the landmark before, to the next"),
            (("H",), "hold this reading and compare the next with it; again lets it go"),
            (("T",), "tangent at the reading"),
            (("A",), "area between the held reading and this one"),
            (("U",), "hear a curve; again stops it, Esc leaves"),
        ),
    ),
    (
        "View, with the plot in focus",
        (
            (("+", "−"), "zoom at the reading line"),
            (("X", "Shift X"), "zoom the x-axis alone, in and out"),
            (("Y", "Shift Y"), "zoom the y-axis alone, in and out"),
            (("Alt ← →", "↑", "↓"), "move the view"),
            (("B",), "draw a box to zoom into; also a drag with Shift"),
            (("0",), "frame what matters"),
            (("Home",), "the standard view, −10 to 10"),
            (("Backspace", "Shift Backspace"), "previous view, next view"),
            (("E",), "equal scale"),
            (("G",), "grid: fine, coarse, polar, none"),
            (("C",), "clear trails"),
            (("P",), "a click puts a point; again ends it"),
            (("S",), "points that are put or moved go to the grid"),
        ),
    ),
    (
        "Lanes and sliders",
        (
            (("Enter",), "add the line in the entry; edit the lane in focus"),
            (("↑", "↓"), "in the entry: an earlier line, and back"),
            (
                ("↑", "↓", "Home"),
                "on the handle of the rail: divide the height, the usual division",
            ),
            (("]",), "put the desk away, or bring it back"),
            (("← →", "Home"), "on the edge of the desk: its width, the usual width"),
            (("Alt ↑", "Alt ↓"), "move the lane up, down"),
            (("← →", "Page ↑ ↓"), "move a slider or a domain’s end; Shift changes how far"),
            (("← → ↑ ↓",), "move a point whose strip is in focus; with Shift finely"),
            (("Space",), "play the slider in focus; on the plot, all of them"),
            (("Esc",), "pause everything that plays; leave a line as it was"),
        ),
    ),
    (
        "Working",
        (
            (("=",), "to a calculation, from anywhere but a field"),
            (("↑", "↓"), "in the entry: an earlier line, and back; on lines: from line to line"),
            (("D",), "on a line: decimal, exact, both"),
            (("R",), "on a line: put it to rest, or wake it"),
            (("Enter", "Delete"), "on a line: change it, delete it"),
        ),
    ),
    (
        "Everywhere",
        (
            (("Alt E", "Alt P"), "to the entry, to the plot"),
            (("Alt L", "Alt D"), "to the lanes, to the desk; again to the next, with Shift back"),
            (("F6", "Shift F6"), "to the next of these four, or back"),
            (("Ctrl Z", "Ctrl Y"), "undo, redo"),
            (("Ctrl Space",), "names to complete, in the entry"),
            (("?",), "this list"),
        ),
    ),
)
