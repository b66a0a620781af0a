"""Lines that wait, on the page."""

from typing import Any

from axispath.core.language.numbers import listed
from axispath.core.sheet.document import Document
from axispath.core.sheet.kinds.point import could_run
from axispath.core.sheet.resolve import ResolvedLane
from axispath.web.kinds.register import Face


def _note(lane: ResolvedLane, digits: int) -> str:
    return f"waits for {listed(lane.missing)}"


def _letters(document: Document, lane: ResolvedLane) -> dict[str, Any]:
    return {"letters": could_run(lane)}


WAITING = Face("parts/kinds/waiting.html", note=_note, more=_letters)
