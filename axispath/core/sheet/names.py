"""What a sheet may hold as a name, and signs that nothing can hold, whoever wrote it."""

from __future__ import annotations

import re
from typing import Annotated

from pydantic import AfterValidator, Field

from axispath.core.language.tokens import is_name

MAX_NAME = 120
# Signs that no page, file or database can hold.
_STRANGE = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f\ufffe\uffff]")


def named(text: str) -> str:
    """A name of the language, or nothing. Raises ValueError."""
    if text and not is_name(text):
        raise ValueError("this is no name in the language of formulas")
    return text


SheetName = Annotated[str, Field(max_length=MAX_NAME), AfterValidator(named)]
"""A name of the language of formulas; empty where there is none."""


def strange_sign(found: object) -> str:
    """The first sign in some texts, however deep they lie, that nothing can hold, as U+0000."""
    pending = [found]
    while pending:
        value = pending.pop()
        if isinstance(value, str):
            match = _STRANGE.search(value)
            if match:
                return f"U+{ord(match.group()):04X}"
        elif isinstance(value, dict):
            pending += [*value.keys(), *value.values()]
        elif isinstance(value, list):
            pending += value
    return ""
