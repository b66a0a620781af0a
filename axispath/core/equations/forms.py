"""Dimensions of unknowns as linear conditions, solved as they are met.

Each formula has a dimension, a sum of those of its unknowns with rational factors, and what is
added or equated has the same.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from fractions import Fraction

from axispath.core.quantities.dimensions import NONE, Dimension, combined, raised, told
from axispath.core.quantities.values import NoResult

MOST_TOLD = 3


@dataclass(frozen=True, slots=True)
class Form:
    """A dimension: a known part, and powers of those of unknowns that are not known yet."""

    known: Dimension = NONE
    parts: tuple[tuple[str, Fraction], ...] = ()

    def times(self, other: Form, power: Fraction = Fraction(1)) -> Form:
        """The dimension of a product with a power of another."""
        if other == PLAIN:
            return self
        parts = dict(self.parts)
        for name, q in other.parts:
            parts[name] = parts.get(name, Fraction(0)) + q * power
        kept = tuple((name, q) for name, q in sorted(parts.items()) if q)
        return Form(combined(self.known, raised(other.known, power)), kept)


PLAIN = Form()


@dataclass
class Dimensions:
    """What is known of the dimensions of unknowns."""

    solved: dict[str, Form] = field(default_factory=dict)
    by: dict[str, int] = field(default_factory=dict)  # the equation that said so
    equation: int = 0  # the one that is read
    wild: int = 0

    def now(self, form: Form) -> Form:
        """A dimension with what is known put in."""
        if not form.parts:
            return form
        found = Form(form.known)
        for name, q in form.parts:
            found = found.times(self.solved.get(name, Form(NONE, ((name, Fraction(1)),))), q)
        return found

    def same(self, one: Form, other: Form, words: Callable[[str, str], str]) -> None:
        """Two dimensions are one. Raises NoResult, with ``words`` about both, where they cannot."""
        if one == other:
            return
        first, second = self.now(one), self.now(other)
        apart = first.times(second, Fraction(-1))
        if not apart.parts:
            if apart.known != NONE:
                raise NoResult(words(self.told(first), self.told(second)))
            return
        name, q = apart.parts[0]
        rest = Form(apart.known, apart.parts[1:])
        found = PLAIN.times(rest, -1 / q)
        single = {name: found}
        for other_name, form in self.solved.items():
            self.solved[other_name] = _put(form, single)
        self.solved[name] = found
        self.by.setdefault(name, self.equation)

    def told(self, form: Form) -> str:
        """What a sentence calls it; what is open counts as a plain number."""
        return told(self.now(form).known)

    def of(self, name: str) -> Dimension:
        """The dimension of an unknown; that of a plain number where nothing says another."""
        return self.now(Form(NONE, ((name, Fraction(1)),))).known

    def origin(self, names: Iterable[str]) -> str:
        """From which other equations the dimensions of some names are: for a sentence."""
        told_by = [
            f"{name} is in {told(self.of(name))} by equation {self.by[name]}"
            for name in sorted(names)
            if self.of(name) != NONE and self.by.get(name, self.equation) != self.equation
        ]
        return f" ({', '.join(told_by[:MOST_TOLD])})" if told_by else ""

    def any(self) -> Form:
        """A dimension about which nothing is said."""
        self.wild += 1
        return Form(NONE, ((f"0 {self.wild}", Fraction(1)),))


def _put(form: Form, given: Mapping[str, Form]) -> Form:
    found = Form(form.known)
    for name, q in form.parts:
        found = found.times(given.get(name, Form(NONE, ((name, Fraction(1)),))), q)
    return found


def is_wild(form: Form) -> bool:
    """Whether the dimension of a 0 is in it, about which nothing is said."""
    return any(name.startswith("0 ") for name, _ in form.parts)
