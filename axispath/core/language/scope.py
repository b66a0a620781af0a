"""Which names a line may use, so that it can be read."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from axispath.core.language.vocabulary import Vocabulary


@dataclass(frozen=True, slots=True)
class Scope:
    """``functions`` maps the sheet's function names to how many arguments they take."""

    vocabulary: Vocabulary
    functions: Mapping[str, int] = field(default_factory=dict)
    values: frozenset[str] = frozenset()
    signatures: Mapping[str, str] = field(default_factory=dict)  # how calls look, for messages

    def knows(self, word: str) -> bool:
        """Whether a word stands for something by itself."""
        return (
            word in self.functions
            or word in self.values
            or word in self.vocabulary.functions
            or word in self.vocabulary.constants
            or logarithm_base(word) is not None
        )

    def with_values(self, names: tuple[str, ...]) -> Scope:
        """This scope with ``names`` as values, hiding functions of the same name."""
        functions = {name: count for name, count in self.functions.items() if name not in names}
        values = self.values | frozenset(names)
        return Scope(self.vocabulary, functions, values, self.signatures)


def logarithm_base(word: str) -> str | None:
    """``2`` for the word ``log_2``, else None."""
    head, bar, base = word.partition("_")
    return base if bar and head == "log" and base else None


def split(word: str, scope: Scope) -> list[str]:
    """The word itself where it is known, else the known words it is a product of.

    The longest known word comes first at every step. A word that cannot be taken apart
    stays whole, as a name without a value.
    """
    if scope.knows(word):
        return [word]
    failed: set[int] = set()

    def parts(at: int) -> list[str] | None:
        if at == len(word):
            return []
        if at in failed:
            return None
        for end in range(len(word), at, -1):
            if scope.knows(word[at:end]):
                rest = parts(end)
                if rest is not None:
                    return [word[at:end], *rest]
        failed.add(at)
        return None

    return (parts(0) if len(word) <= 60 else None) or [word]
