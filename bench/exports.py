"""Time and size of each format, for the demo sheet whose files are largest."""

from __future__ import annotations

import time

from axispath.core.sheet.document import Document
from axispath.demo.harbour import DEMOS
from axispath.exchange.formats import FORMATS, Choice, made
from axispath.exchange.sheets.file import sheet_file


def report() -> None:
    """Print how long each format takes, the first time and again, and how long its file is."""
    document = max((make() for make in DEMOS.values()), key=lambda one: len(sheet_file(one)))
    print(f"“{document.name}” in every format:")
    for name, wanted in FORMATS.items():
        first, size = _timed(document, name)
        again, _ = _timed(document, name)
        print(f"  {wanted.title}: {first:.0f} ms, again {again:.0f} ms, {size / 1000:.1f} kB")


def _timed(document: Document, name: str) -> tuple[float, int]:
    start = time.perf_counter()
    data = made(document, FORMATS[name], Choice())
    return (time.perf_counter() - start) * 1000, len(data)
