"""What two states of a sheet have in common, and what not."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.sheet.document import Document, Lane


@dataclass(frozen=True, slots=True)
class Compared:
    """Lanes that are only in one of two states, and those that are in both and differ."""

    added: tuple[Lane, ...]
    gone: tuple[Lane, ...]
    changed: tuple[tuple[Lane, Lane], ...]
    other: tuple[str, ...]  # what else differs, in words

    @property
    def same(self) -> bool:
        """Whether the two are one."""
        return not (self.added or self.gone or self.changed or self.other)


WORDS = {
    "name": "the name of the sheet",
    "unit": "the unit of angles",
    "digits": "the digits of values",
    "notation": "the notation of results",
    "measures": "the system of units",
    "ground": "grid, axes, title or legend",
    "tables": "the tables of values",
    "equations": "the equations of Solve",
    "system": "the linear system",
}


def compared(before: Document, after: Document) -> Compared:
    """What became of a sheet; its view does not count."""
    old = {lane.id: lane for lane in before.lanes}
    new = {lane.id: lane for lane in after.lanes}
    kept = [lane for lane in before.lanes if lane.id in new]
    stayed = [lane.id for lane in after.lanes if lane.id in old]
    other = [
        words for field, words in WORDS.items() if getattr(before, field) != getattr(after, field)
    ]
    if [lane.id for lane in kept] != stayed:
        other.append("the order of the lanes")
    return Compared(
        tuple(lane for lane in after.lanes if lane.id not in old),
        tuple(lane for lane in before.lanes if lane.id not in new),
        tuple((lane, new[lane.id]) for lane in kept if new[lane.id] != lane),
        tuple(other),
    )
