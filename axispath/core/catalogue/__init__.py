"""Every built-in function and constant, one entry each.

Evaluation, proof and typesetting all read these entries: adding a function means adding
one entry to one of the files beside this one.
"""

from __future__ import annotations

from axispath.core.catalogue import (
    angles,
    calculus,
    complexes,
    hyperbolic,
    lists,
    matrices,
    powers,
    reciprocals,
    rounding,
    sequences,
    special,
    trigonometry,
    whole,
)
from axispath.core.catalogue.calculated import Calculated
from axispath.core.catalogue.constants import CONSTANTS as _CONSTANTS
from axispath.core.catalogue.entry import Angle, Entry
from axispath.core.catalogue.units import PHYSICAL, UNITS, Unit, unit_of
from axispath.core.language.scope import Scope
from axispath.core.language.vocabulary import Vocabulary

FAMILIES = {
    "Angles and triangles": (*trigonometry.ENTRIES, *reciprocals.ENTRIES, angles.DEGREES),
    "Powers, roots and logarithms": powers.ENTRIES,
    "Hyperbolic functions": hyperbolic.ENTRIES,
    "Rounding and remainders": rounding.ENTRIES,
    "Whole numbers": whole.ENTRIES,
    "Chance and special functions": special.ENTRIES,
    "Several values and lists": lists.ENTRIES,
}
ON_LINES = {
    "Complex numbers": complexes.ENTRIES,
    "Lists on lines": sequences.ENTRIES,
    "Matrices and vectors": matrices.ENTRIES,
    "Calculus on lines": calculus.ENTRIES,
}
"""Functions that the page Working computes, and other lines from numbers alone."""
CALCULATED = {entry.word.name: entry for family in ON_LINES.values() for entry in family}
ENTRIES = {entry.word.name: entry for family in FAMILIES.values() for entry in family}
CONSTANTS = {constant.name: constant for constant in _CONSTANTS}
WORDS = (
    *(entry.word for entry in ENTRIES.values()),
    *(entry.word for entry in CALCULATED.values()),
)
VOCABULARY = Vocabulary.of(WORDS, {name: name for name in CONSTANTS})
SCOPE = Scope(VOCABULARY)
MEASURED_VOCABULARY = VOCABULARY.measured(
    PHYSICAL,
    lambda word: unit_of(word) is not None,
    (word for unit in UNITS for word in (unit.symbol, *unit.spellings)),
)
"""What is read in lanes of a sheet whose axes have units: constants of nature and units too."""
LINE_VOCABULARY = MEASURED_VOCABULARY.for_lines()
"""What is read on lines of calculation: the same, and i."""

__all__ = [
    "CALCULATED",
    "CONSTANTS",
    "ENTRIES",
    "FAMILIES",
    "LINE_VOCABULARY",
    "MEASURED_VOCABULARY",
    "ON_LINES",
    "PHYSICAL",
    "SCOPE",
    "UNITS",
    "VOCABULARY",
    "Angle",
    "Calculated",
    "Entry",
    "Unit",
    "unit_of",
]
