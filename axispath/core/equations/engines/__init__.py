"""What solves a part of a system: the first engine that takes it, of those that prove most."""

from __future__ import annotations

from axispath.core.equations.engines.engine import Engine, Found, Task
from axispath.core.equations.engines.pair import PAIR
from axispath.core.equations.engines.single import SINGLE
from axispath.core.equations.engines.starts import STARTS

ENGINES: tuple[Engine, ...] = (SINGLE, PAIR, STARTS)

__all__ = ["ENGINES", "Engine", "Found", "Task"]
