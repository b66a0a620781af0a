"""Names of files that are safe everywhere, made from the names of sheets."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable

LONGEST = 80
REFUSED = re.compile(r'[\x00-\x1f\x7f<>:"/\\|?*]+')
DEVICES = re.compile(r"(con|prn|aux|nul|com\d|lpt\d)(\..*)?", re.IGNORECASE)


def file_name(name: str, suffix: str) -> str:
    """A sheet's name as that of a file: without signs that some system gives a meaning."""
    clean = unicodedata.normalize("NFC", name)
    clean = "".join(c for c in clean if unicodedata.category(c) not in ("Cf", "Cs", "Co"))
    clean = REFUSED.sub(" ", clean)
    clean = " ".join(clean.split()).strip(". ")[:LONGEST].strip(". ")
    if not clean or DEVICES.fullmatch(clean):
        clean = f"sheet {clean}".strip()
    return f"{clean}.{suffix}"


def told_apart(names: Iterable[str], suffix: str) -> list[str]:
    """One file name for each of some sheets, each once, whatever the case of its letters."""
    taken: set[str] = set()
    found = []
    for name in names:
        number, one = 1, file_name(name, suffix)
        while one.lower() in taken:
            number += 1
            one = file_name(f"{name[: LONGEST - 6]} {number}", suffix)
        taken.add(one.lower())
        found.append(one)
    return found
