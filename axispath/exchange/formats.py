"""The formats that pictures can be taken away in. Loads nothing that draws."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Format:
    """A format: its ending, what it is called, its media type, and whether it has pixels."""

    name: str
    title: str
    media: str
    pixels: bool = False


FORMATS = {
    found.name: found
    for found in (
        Format("png", "PNG picture", "image/png", pixels=True),
        Format("svg", "SVG drawing", "image/svg+xml"),
        Format("pdf", "PDF page", "application/pdf"),
    )
}
