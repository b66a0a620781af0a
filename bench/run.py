"""./axis-path bench [PART ...]: every part but load, which has to be named, or those named."""

from __future__ import annotations

from axispath.command.errors import CommandFailed
from bench import (
    curves,
    data,
    dragging,
    exports,
    language,
    load,
    opening,
    pages,
    path,
    redraw,
    relations,
    shelf,
    working,
)

PARTS = {
    "language": language.report,
    "redraw": redraw.report,
    "path": path.report,
    "curves": curves.report,
    "relations": relations.report,
    "data": data.report,
    "working": working.report,
    "exports": exports.report,
    "shelf": shelf.report,
    "pages": pages.report,
    "dragging": dragging.report,
    "opening": opening.report,
    "load": load.report,
}
USUAL = [name for name in PARTS if name != "load"]


def run_bench(names: list[str]) -> int:
    """Print the figures of the named parts, or of all."""
    unknown = [name for name in names if name not in PARTS]
    if unknown:
        raise CommandFailed(f"there is no benchmark {unknown[0]}; there are {', '.join(PARTS)}.")
    for name in names or USUAL:
        PARTS[name]()
    return 0
