"""How much work a search may do."""

from __future__ import annotations

from collections.abc import Callable

EVALUATIONS = 8_000  # the usual budget of one search
LOOK_EVERY = 16  # evaluations between two looks at the clock


class Budget:
    """A number of evaluations, and a time where a clock is given.

    The core has no clock of its own: ``clock`` gives seconds, ``seconds`` is how many the
    search may take from now on.
    """

    def __init__(
        self,
        evaluations: int = EVALUATIONS,
        seconds: float | None = None,
        clock: Callable[[], float] | None = None,
    ) -> None:
        self.left = evaluations
        self.seconds = seconds or 0.0
        self._looked = LOOK_EVERY
        self.clock = clock
        self._until = clock() + seconds if clock and seconds is not None else None

    def spend(self, evaluations: int = 1) -> None:
        """Take one evaluation, or what costs as much as several."""
        self.left -= evaluations
        self._looked -= evaluations
        if self._looked > 0 or self.clock is None or self._until is None:
            return
        self._looked = LOOK_EVERY
        if self.clock() > self._until:
            self.left = min(self.left, 0)

    def part(self, of: int) -> Budget:
        """A share of what is left, of the time too."""
        if self.clock is None or self._until is None:
            return Budget(self.left // max(of, 1))
        seconds = max(0.0, self._until - self.clock()) / max(of, 1)
        return Budget(self.left // max(of, 1), seconds, self.clock)

    @property
    def spent(self) -> bool:
        """Whether nothing is left."""
        return self.left <= 0
