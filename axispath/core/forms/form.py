"""One form of a function, with what can be read off it."""

from __future__ import annotations

from dataclasses import dataclass

from axispath.core.language.tree import Expression


@dataclass(frozen=True, slots=True)
class Form:
    """``tells`` is what can be read off; ``condition`` where there is no value, though it has one.

    ``derived`` ones are another function: a derivative, an antiderivative.
    """

    name: str
    body: Expression
    text: str
    tells: str
    condition: str = ""
    derived: bool = False
