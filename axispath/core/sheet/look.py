"""How things look, as data: read by the pictures here and, as JSON, by the scripts of the page.

Lengths are in pixels. A landmark's shape is a list of lines through points around (0, 0), y
downwards, ``filled`` or not; or a ring, with a dot in it or filled where the landmark is closed.
"""

from __future__ import annotations

from typing import Any, Final

LOOK: Final[dict[str, Any]] = {
    # One dash to each colour of the palette, so that colour is never the only sign.
    "usualDashes": [
        [],
        [9, 5],
        [2, 4],
        [12, 4, 2, 4],
        [6, 3],
        [14, 6],
        [4, 2, 1, 2],
        [16, 3, 3, 3],
    ],
    "dashes": {
        "unbroken": [],
        "dashes": [9, 5],
        "dots": [2, 4],
        "dashes and dots": [12, 4, 2, 4],
    },
    "widths": {"thin": 1.25, "medium": 2.25, "thick": 4.0},
    "faint": 0.28,  # of what is seen behind something else
    "pale": 0.5,  # of what is told apart from the rest of its lane
    "band": 0.45,  # of where a curve is denser than pixels
    # Of a part of the plane: its shade, and the lines through it, so far apart, by colour.
    "shade": 0.13,
    "hatch": {"alpha": 0.5, "width": 1, "gap": 9, "angles": [45, -45, 0, 90, 30, -30, 60, -60]},
    "tint": 0.6,  # of the highest band of a map
    "label": 11.5,  # size of a level's number
    "unsettled": 0.3,  # of where nothing could be settled
    "border": [7, 5],  # dashes of a border that does not belong
    "speck": 1,  # radius of what is no wider than a line
    "joining": 1.5,  # width of lines that join samples
    "trail": 1.25,
    "dot": 3.5,  # radius of a sample
    "point": 5,  # and of a point of the sheet
    "flag": 20,  # height of a name at its curve
    "ring": 4.5,  # radius of a landmark that is a ring
    "eye": 1.5,  # radius of the dot in it
    "asymptote": [7, 6],
    # Landmarks that are rings: with a dot in them, filled where they are closed, or open.
    "rings": {
        "zero": "dot",
        "meets-x": "dot",
        "meets-y": "dot",
        "at-the-pole": "dot",
        "start": "closed",
        "end": "closed",
        "hole": "open",
        "single-point": "closed",
        "corner": "closed",
    },
    "shapes": {
        "maximum": {"filled": True, "lines": [[[-5, 4], [5, 4], [0, -5], [-5, 4]]]},
        "minimum": {"filled": True, "lines": [[[-5, -4], [5, -4], [0, 5], [-5, -4]]]},
        "kink": {"filled": False, "lines": [[[-5, 4], [0, -4], [5, 4]]]},
        "inflection": {"filled": False, "lines": [[[-3, 4], [3, -4]]]},
        "level-tangent": {"filled": False, "lines": [[[-6, 0], [6, 0]]]},
        "upright-tangent": {"filled": False, "lines": [[[0, -6], [0, 6]]]},
        "cusp": {"filled": True, "lines": [[[0, -6], [5, 4], [0, 1], [-5, 4], [0, -6]]]},
        "stop": {"filled": False, "lines": [[[-4, 0], [0, -4], [4, 0], [0, 4], [-4, 0]]]},
        "self-crossing": {
            "filled": False,
            "lines": [
                [[-5, -5], [5, -5], [5, 5], [-5, 5], [-5, -5]],
                [[-5, -5], [5, 5]],
                [[-5, 5], [5, -5]],
            ],
        },
        "peak": {"filled": True, "lines": [[[-5, 4], [5, 4], [0, -5], [-5, 4]]]},
        "pit": {"filled": True, "lines": [[[-5, -4], [5, -4], [0, 5], [-5, -4]]]},
        "saddle": {
            "filled": False,
            "lines": [[[-5, -5], [-2, 0], [-5, 5]], [[5, -5], [2, 0], [5, 5]]],
        },
        "farthest": {"filled": True, "lines": [[[-5, 0], [0, -5], [5, 0], [0, 5], [-5, 0]]]},
        "nearest": {"filled": False, "lines": [[[-5, 0], [0, -5], [5, 0], [0, 5], [-5, 0]]]},
        "intersection": {"filled": False, "lines": [[[-4, -4], [4, 4]], [[-4, 4], [4, -4]]]},
    },
    # Away from its point, so that the curve shows.
    "lifted": {"maximum": -9, "minimum": 9},
    "ticks": {
        "across": 70,  # between numbers of the x-axis
        "upwards": 45,
        "most": 400,
        "typed": 0.5,  # a step that was typed may stand this much closer
        # Fractions of π, and degrees, that numbers are apart by.
        "partsOfPi": [[1, 24], [1, 12], [1, 6], [1, 4], [1, 3], [1, 2], [1, 1], [2, 1], [5, 1]],
        "turns": [1, 2, 5, 10, 15, 30, 45, 90, 180, 360, 720, 1800],
    },
    # Rays of a polar grid in a full turn, those of them with their angles, pixels between circles.
    "polar": {"rays": 24, "named": 12, "closest": 9, "most": 200, "room": 16},
    "view": {
        "widest": 1e13,
        "narrowest": 1e-13,
        "narrowestShare": 1e-12,  # of the larger limit: below that float64 tells no pixels apart
    },
}
