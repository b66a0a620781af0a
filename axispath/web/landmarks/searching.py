"""Looks for landmarks, each with what it may take."""

from __future__ import annotations

from axispath.budgets import FURTHER_SEARCH, USUAL_SEARCH
from axispath.core.path.lanes import Range
from axispath.core.path.survey import Survey, further, survey
from axispath.core.sheet.document import Document


def looked(document: Document, longer: bool, only: Range | None) -> Survey:
    """A look at a sheet; what stays open in the usual effort is searched ``longer`` if wanted."""
    found = survey(document, USUAL_SEARCH, only)
    return further(document, found, FURTHER_SEARCH, only) if longer else found
