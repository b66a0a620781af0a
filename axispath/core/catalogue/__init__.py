"""Every built-in function and constant, one entry each.

Evaluation, proof and typesetting all read these entries: adding a function means adding
one entry to one of the files beside this one.
"""

from __future__ import annotations

from axispath.core.catalogue import (
    angles,
    hyperbolic,
    lists,
    powers,
    reciprocals,
    rounding,
    special,
    trigonometry,
    whole,
)
from axispath.core.catalogue.constants import CONSTANTS as _CONSTANTS
from axispath.core.catalogue.entry import Angle, Entry
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
ENTRIES = {entry.word.name: entry for family in FAMILIES.values() for entry in family}
CONSTANTS = {constant.name: constant for constant in _CONSTANTS}
VOCABULARY = Vocabulary.of(
    (entry.word for entry in ENTRIES.values()), {name: name for name in CONSTANTS}
)
SCOPE = Scope(VOCABULARY)

__all__ = ["CONSTANTS", "ENTRIES", "FAMILIES", "SCOPE", "VOCABULARY", "Angle", "Entry"]
