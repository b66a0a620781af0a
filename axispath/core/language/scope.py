"""Which names a line may use, so that it can be read."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from axispath.core.language.tokens import GREEK
from axispath.core.language.vocabulary import Vocabulary


@dataclass(frozen=True, slots=True)
class Scope:
    """``functions`` maps the sheet's function names to how many arguments they take."""

    vocabulary: Vocabulary
    functions: Mapping[str, int] = field(default_factory=dict)
    values: frozenset[str] = frozenset()
    signatures: Mapping[str, str] = field(default_factory=dict)  # how calls look, for messages
    points: frozenset[str] = frozenset()  # their coordinates are among the values
    curves: frozenset[str] = frozenset()  # their coordinates are among the functions
    regions: Mapping[str, str] = field(default_factory=dict)  # relations by name, as their lines
    depth: int = 0  # of relations within one another
    measured: bool = False  # whether constants of nature are read, as beside units
    units: frozenset[str] = frozenset()  # read as units behind numbers though they are names

    def knows(self, word: str) -> bool:
        """Whether a word stands for something by itself."""
        return (
            word in self.functions
            or word in self.values
            or word in self.points
            or word in self.curves
            or word in self.vocabulary.functions
            or word in self.vocabulary.constants
            or logarithm_base(word) is not None
        )

    def is_whole_unit(self, word: str) -> bool:
        """Whether a word is a unit behind whatever there is: kg in a kg, but not mg where m is."""
        if len(word) < 2 or self.knows(word) or not self.vocabulary.is_unit(word):
            return False
        return not any(part in self.values for part in split(word, self))

    def with_values(self, names: tuple[str, ...]) -> Scope:
        """This scope with ``names`` as values, hiding functions of the same name."""
        functions = {name: count for name, count in self.functions.items() if name not in names}
        values = self.values | frozenset(names)
        points, curves = self.points - frozenset(names), self.curves - frozenset(names)
        return replace(self, functions=functions, values=values, points=points, curves=curves)

    def inside(self, region: str) -> Scope:
        """The scope in which the line of a relation is read that another names."""
        rest = {name: line for name, line in self.regions.items() if name != region}
        return replace(self, regions=rest, depth=self.depth + 1)


def logarithm_base(word: str) -> str | None:
    """``2`` for the word ``log_2``, else None."""
    head, bar, base = word.partition("_")
    return base if bar and head == "log" and base else None


def split(word: str, scope: Scope) -> list[str]:
    """The word itself where it is known, else the known words it is a product of.

    The longest known word comes first at every step; constants may be spelled out, as in
    ``2pix``. One letter beside an argument or a value, as in ``mx``, is a factor that has
    yet to get a value, and so are the usual arguments of functions and rates, as in ``sinθ``
    and ``ωt``. A word that cannot be taken apart stays whole, as a name.
    """
    if scope.knows(word):
        return [word]
    if len(word) > LONGEST_SPLIT:
        return [word]
    found = _known_parts(word, scope, 0)
    if found is None and len(word) <= LONGEST_WITH_UNKNOWN:
        found = _known_parts(word, scope, 1)
        if found is not None and not any(part in scope.values for part in found):
            found = None
    if found is None and word[-1] in USUAL_ARGUMENTS:
        entry = scope.vocabulary.functions.get(word[:-1])
        if (entry and entry.inverse) or word[:-1] in RATES:
            found = [word[:-1], word[-1]]
    return found or [word]


LONGEST_SPLIT = 60
LONGEST_WITH_UNKNOWN = 3
USUAL_ARGUMENTS = "tuαβγθφωψ"
RATES = ("ω", "λ")  # as in ωt; a Greek letter before others mostly belongs to a name, as in δx


def _known_parts(word: str, scope: Scope, unknown: int) -> list[str] | None:
    """The word as known words, but for so many single letters."""
    failed: set[tuple[int, int]] = set()

    def parts(at: int, spare: int) -> list[str] | None:
        if at == len(word):
            return []
        if (at, spare) in failed:
            return None
        for end in range(len(word), at, -1):
            part = word[at:end]
            known = scope.knows(part) or GREEK.get(part) in scope.vocabulary.constants
            if known or (spare and end == at + 1 and part.isalpha()):
                rest = parts(end, spare if known else spare - 1)
                if rest is not None:
                    return [part, *rest]
        failed.add((at, spare))
        return None

    return parts(0, unknown)
