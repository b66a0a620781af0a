"""What the plot shows, in sentences: for screen readers, and where nothing shows."""

from __future__ import annotations

from axispath.core.language.numbers import listed
from axispath.core.path.survey import Survey
from axispath.core.sampling.kinds import DRAWN
from axispath.core.search.landmark import Path
from axispath.core.sheet.document import Document
from axispath.core.sheet.resolve import ResolvedLane, resolve
from axispath.core.table.kinds import DESCRIBED
from axispath.core.table.kinds.data import fit_in_words


def in_words(document: Document, found: Survey) -> str:
    """The visible lanes described by their paths."""
    sentences = [
        DESCRIBED[lane.kind.key].words(lane, path, document) for lane, path in _all(document, found)
    ]
    sentences += [
        f"{lane.name} is a {words}."
        for lane in resolve(document).shown(DESCRIBED)
        if (words := fit_in_words(lane, document.digits))
    ]
    return " ".join(sentences) or "The plot is empty."


def explain_empty(document: Document, found: Survey) -> tuple[str, bool]:
    """Why no curve shows, and whether framing would help; an empty text where one shows."""
    sheet = resolve(document)
    if not sheet.lanes:
        return "", False
    shown = _all(document, found)
    if not shown:
        return _nothing_to_show(document), False
    reasons = [DESCRIBED[lane.kind.key].unseen(lane, path, document) for lane, path in shown]
    if any(reason is None for reason in reasons):
        return "", False
    undefined = [reason for reason in reasons if reason and "undefined" in reason]
    can_frame = len(undefined) < len(reasons)
    return " ".join(dict.fromkeys(reason for reason in reasons if reason)), can_frame


def _nothing_to_show(document: Document) -> str:
    sheet = resolve(document)
    if any(lane.can(DRAWN) and not lane.lane.working for lane in sheet):
        return "Every function is hidden."
    waiting = [name for lane in sheet for name in lane.missing]
    if waiting:
        names = listed(dict.fromkeys(waiting))
        verb = "has" if len(set(waiting)) == 1 else "have"
        return f"Nothing can be drawn yet: {names} {verb} no value."
    return ""


def _all(document: Document, found: Survey) -> list[tuple[ResolvedLane, Path | None]]:
    """The visible lanes in their order, those with landmarks with their paths."""
    paths = {lane.lane.id: path for lane, path in found.lanes}
    shown = resolve(document).shown(DESCRIBED)
    return [(lane, paths.get(lane.lane.id)) for lane in shown]
