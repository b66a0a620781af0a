"""Pictures of a sheet in several states of what is turned, as many at once as can be."""

from __future__ import annotations

from dataclasses import dataclass, field

from axispath.core.arithmetic.patience import OutOfTime, Patience, limited
from axispath.core.sampling.kinds import DRAWN, DRAWN_IN_STATES, drawn
from axispath.core.sampling.primitives import Primitive
from axispath.core.sampling.view import Frame
from axispath.core.sheet.resolve import ResolvedLane
from axispath.core.sheet.states import States

Drawing = tuple[str, list[Primitive]]


@dataclass(slots=True)
class Picture:
    """Lanes as they are drawn; ``cut`` are those for which the time did not suffice."""

    drawings: list[Drawing] = field(default_factory=list)
    cut: list[str] = field(default_factory=list)


@dataclass(slots=True)
class Pictures:
    """``still`` is the same in all states, ``moving`` has one picture a state, from the first."""

    still: Picture
    moving: list[Picture]


class Clock:
    """How long each lane may take, and all of them: ``share`` is for one, ``left`` for all."""

    def __init__(self, share: Patience, left: float) -> None:
        self.share = share
        self.until = share.clock() + left

    @property
    def spent(self) -> bool:
        """Whether the time of all is over."""
        return self.share.clock() > self.until

    def patience(self) -> Patience:
        """That with the next lane."""
        left = self.until - self.share.clock()
        return Patience(max(0.005, min(self.share.seconds, left)), self.share.clock)


def pictures(
    states: States, frame: Frame, share: Patience, first: float, others: float
) -> Pictures:
    """The sheet in its states, as many of them as there is time for; at least in the first.

    ``share`` is the patience with one lane, ``first`` are seconds for all lanes of the first state,
    ``others`` for those states together that have to be looked at one by one.
    """
    clock = Clock(share, first)
    still = Picture()
    moving = [Picture() for _ in range(len(states))]
    known = set()
    for lane in states.sheet.shown(DRAWN):
        if states.same(lane):
            _draw(states, None, lane, frame, clock, still)
            known.add(lane.lane.id)
        elif (shapes := _together(states, lane, frame, clock)) is not None:
            known.add(lane.lane.id)
            for picture, drawing in zip(moving, shapes, strict=True):
                picture.drawings.append((lane.lane.id, drawing))
    rest = [lane for lane in states.sheet if not (lane.lane.hidden or lane.lane.working)]
    if all(lane.lane.id in known or (lane.ready and not lane.can(DRAWN)) for lane in rest):
        return Pictures(still, moving)
    for k, picture in enumerate(moving):
        if k == 1:
            clock = Clock(share, others)
        if k and clock.spent:
            return Pictures(still, moving[:k])
        for lane in states.sheet_in(k).shown(DRAWN):
            if lane.lane.id not in known:
                _draw(states, k, lane, frame, clock, picture)
    return Pictures(still, moving)


def _together(
    states: States, lane: ResolvedLane, frame: Frame, clock: Clock
) -> list[list[Primitive]] | None:
    """A lane in all states at once; None where that cannot be, or takes too long."""
    work = DRAWN_IN_STATES.get(lane.kind.key)
    if work is None:
        return None
    try:
        with limited(clock.patience()):
            return work(states, lane, frame)
    except OutOfTime:
        return None


def _draw(
    states: States,
    k: int | None,
    lane: ResolvedLane,
    frame: Frame,
    clock: Clock,
    picture: Picture,
) -> None:
    """A lane in one state, or in all where it is the same."""
    document = states.document if k is None else states.in_state(k)
    try:
        picture.drawings.append((lane.lane.id, drawn(document, lane, frame, clock.patience())))
    except OutOfTime:
        picture.cut.append(lane.lane.id)
