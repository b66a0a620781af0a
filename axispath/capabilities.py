"""What can be switched off in a sealed hand-out: one entry each, read by the pages, the routes
and the store.
"""

from __future__ import annotations

from dataclasses import dataclass

# A line that asks for a form is an edit like any other, and told apart by its words.
FORM = "ask for a form"


@dataclass(frozen=True, slots=True)
class Capability:
    """What a seal may switch off: ``routes`` by the beginning of their names, ``edits`` by theirs.

    ``pages`` of the desk go with it; ``needs`` are capabilities that would tell the same, and go
    with it too.
    """

    title: str
    routes: tuple[str, ...] = ()
    edits: tuple[str, ...] = ()
    pages: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()


CAPABILITIES: dict[str, Capability] = {
    "landmarks": Capability(
        "landmarks, on the plot too",
        ("api.landmarks_file", "practising.guess", "practising.hint"),
        pages=("landmarks",),
        needs=("forms",),
    ),
    "forms": Capability("other forms: factor, expand, simplify", ("api.forms",), (FORM,)),
    "values": Capability(
        "tables of values",
        ("api.values", "api.value_points", "api.finer"),
        ("set table",),
        ("values",),
    ),
    "solve": Capability("Solve", ("solving.", "reducing."), ("keep equation",), ("solve",)),
    "exact": Capability("exact forms", ("api.exact", "solving.exact")),
    "data": Capability(
        "data sets",
        ("measured.",),
        (
            "add data",
            "points to data",
            "name data",
            "set cells",
            "set rows",
            "move row",
            "set column",
            "remove column",
            "arrange rows",
            "draw data",
        ),
        ("data",),
        ("fits",),
    ),
    "fits": Capability("fits", ("measured.predict",), ("add fit", "set fit")),
    "working": Capability(
        "Working, with equations and matrices",
        ("working.", "equations.", "reducing."),
        ("add work", "move work", "set system", "add block", "set block"),
        ("working",),
    ),
    "hearing": Capability("hearing a curve", ("hearing.",)),
    "handbook": Capability("the handbook", ("handbook.",)),
    "sheets": Capability(
        "other sheets and the shelf",
        (
            "pages.",
            "past.",
            "bringing.",
            "shelf_api.",
            "api.start_sheet",
            "api.branch_sheet",
            "taking.export_many",
        ),
    ),
    "taking": Capability(
        "taking away, copying and printing",
        ("taking.", "handouts.copy", "api.values_text", "api.landmarks_file", "measured.write"),
    ),
}


def whole(off: frozenset[str]) -> frozenset[str]:
    """What is off, with what goes with it."""
    return off | {needed for name in off for needed in CAPABILITIES[name].needs}


def is_off(off: frozenset[str], route: str) -> str:
    """The title of what is off that a route belongs to; empty where it may be called."""
    for name in CAPABILITIES:
        if name in off and route.startswith(CAPABILITIES[name].routes or ("\x00",)):
            return CAPABILITIES[name].title
    return ""


def edits_off(off: frozenset[str]) -> frozenset[str]:
    """The edits that are off."""
    return frozenset(edit for name in off for edit in CAPABILITIES[name].edits)


def pages_off(off: frozenset[str]) -> frozenset[str]:
    """The pages of the desk that are off."""
    return frozenset(page for name in off for page in CAPABILITIES[name].pages)
