"""Sheets with relations and regions, and what is found on them."""

from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Effort
from axispath.core.path.survey import survey
from axispath.core.sampling.view import Frame
from axispath.core.sheet.document import Document, Lane, View
from axispath.core.sheet.edits import AddLane, apply
from axispath.core.sheet.resolve import resolve

FRAME = Frame(-10, 10, -7, 7, 900, 630)
VIEW = View(left=-10, right=10, bottom=-7, top=7)


def sheet(*lines):
    document = Document()
    for line in lines:
        document = apply(document, AddLane(text=line))
    return document.model_copy(update={"view": VIEW})


def lane_of(line, *others):
    return resolve(sheet(*others, line)).lanes[-1]


def path_of(line, evaluations=8000, view=VIEW):
    lane = lane_of(line)
    return SEARCHED[lane.kind.key].path(lane, view, Effort(evaluations=evaluations), 1, None)


def places(path, *kinds):
    return sorted((round(m.x, 9) + 0.0, round(m.y, 9) + 0.0) for m in path.of(*kinds))


def met(*lines):
    found = survey(sheet(*lines), Effort(evaluations=20_000))
    (crossing,) = found.crossings
    return crossing.path


def sheet_with(line):
    """A sheet as it was stored, whatever its line."""
    return Document(lanes=(Lane(id="l", text=line, name="R"),))
