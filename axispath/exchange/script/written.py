"""The parts of a sheet as a script, and as a notebook (nbformat 4.5)."""

from __future__ import annotations

import hashlib
import json
import re
import textwrap

from axispath.core.sheet.document import Document
from axispath.exchange.script.recipe import recipe
from axispath.exchange.script.section import Section

WIDTH = 96


def script(document: Document) -> bytes:
    """One Python file that computes a sheet again."""
    parts = [_part(section, first=k == 0) for k, section in enumerate(recipe(document))]
    return ("\n\n".join(parts).rstrip() + "\n").encode()


def _part(section: Section, first: bool) -> str:
    words = textwrap.wrap(section.words, WIDTH)
    title = [] if first else ["", f"# {section.title}", "#"]
    return "\n".join([*title, *(f"# {line}" for line in words), "", section.code])


def notebook(document: Document) -> bytes:
    """The same as a notebook: words, then code."""
    cells: list[dict[str, object]] = []
    for section in recipe(document):
        mark = "#" if not cells else "##"
        cells.append(
            _cell("markdown", f"{mark} {_escaped(section.title)}\n\n{_escaped(section.words)}")
        )
        cells.append(_cell("code", section.code))
    book = {
        "cells": cells,
        "metadata": {
            "kernelspec": {"display_name": "Python 3", "language": "python", "name": "python3"},
            "language_info": {"name": "python"},
        },
        "nbformat": 4,
        "nbformat_minor": 5,
    }
    return (json.dumps(book, ensure_ascii=False, indent=1) + "\n").encode()


def _cell(kind: str, source: str) -> dict[str, object]:
    cell: dict[str, object] = {
        "cell_type": kind,
        "id": hashlib.sha256(f"{kind}{source}".encode()).hexdigest()[:12],
        "metadata": {},
        "source": source.splitlines(keepends=True),
    }
    if kind == "code":
        cell |= {"execution_count": None, "outputs": []}
    return cell


def _escaped(text: str) -> str:
    """Words in which no sign has a meaning of its own."""
    return re.sub(r"([\\`*_{}\[\]()#+!|<>$-])", r"\\\1", text)
