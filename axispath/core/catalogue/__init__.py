"""Every built-in function and constant, one entry each.

Evaluation, proof and typesetting all read these entries: adding a function means adding
one entry to one of the files beside this one.
"""

from __future__ import annotations

from axispath.core.catalogue import angles, powers, trigonometry
from axispath.core.catalogue.constants import CONSTANTS as _CONSTANTS
from axispath.core.catalogue.entry import Angle, Entry
from axispath.core.language.scope import Scope
from axispath.core.language.vocabulary import Vocabulary

ENTRIES = {
    entry.word.name: entry for entry in (*trigonometry.ENTRIES, *powers.ENTRIES, angles.DEGREES)
}
CONSTANTS = {constant.name: constant for constant in _CONSTANTS}
VOCABULARY = Vocabulary.of(
    (entry.word for entry in ENTRIES.values()), {name: name for name in CONSTANTS}
)
SCOPE = Scope(VOCABULARY)

__all__ = ["CONSTANTS", "ENTRIES", "SCOPE", "VOCABULARY", "Angle", "Entry"]
