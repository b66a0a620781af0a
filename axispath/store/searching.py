"""Texts found by words, by PostgreSQL's text search: stems, several words, words alike."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import bindparam, text
from sqlalchemy.dialects.postgresql import ARRAY
from sqlalchemy.orm import Session
from sqlalchemy.types import Text

# Words that one looks for, and words that the texts have for the same.
ALIKE: tuple[tuple[str, ...], ...] = (
    ("best fit", "regression", "trend line", "line of best fit", "fit"),
    ("whole number", "integer"),
    ("round down", "largest whole number below", "floor"),
    ("round up", "smallest whole number above", "ceil", "ceiling"),
    ("average", "mean"),
    ("slope", "gradient", "derivative", "rate of change", "tangent"),
    ("root", "zero", "x-intercept", "solve"),
    ("maximum", "minimum", "extremum", "turning point", "peak", "vertex", "max", "min"),
    ("graph", "plot", "draw", "curve", "picture"),
    ("area", "integral", "integrate", "shade", "antiderivative"),
    ("intersection", "meet", "cross"),
    ("standard deviation", "spread", "deviation"),
    ("parameter", "slider", "animate", "play"),
    ("spreadsheet", "csv", "excel", "data", "table of data"),
    ("share", "hand out", "send", "link"),
    ("save", "export", "download", "take away"),
    ("combination", "choose", "binomial", "binomial coefficient"),
    ("√", "square root", "sqrt"),
    ("∫", "integral"),
    ("remainder", "modulo", "mod"),
    ("logarithm", "log", "ln"),
    ("piecewise", "cases", "if"),
    ("domain", "restrict", "interval"),
    ("unit", "convert", "conversion", "measure"),
    ("angle", "degrees", "radians"),
    ("inequality", "region", "shade"),
    ("exam", "sealed", "test"),
    ("dark", "theme", "colour"),
)
MOST_WORDS = 10


def wordings(query: str) -> list[tuple[str, ...]]:
    """What is looked for, as groups of which each has to be met by one of its wordings."""
    rest = f" {' '.join(query.lower().split())} "
    groups: list[tuple[str, ...]] = []
    known = sorted(
        ((word, group) for group in ALIKE for word in group), key=lambda one: -len(one[0])
    )
    for word, group in known:
        for form in (f" {word} ", f" {word}s "):
            if form in rest:
                groups.append(group)
                rest = rest.replace(form, "  ")
    groups += [(word,) for word in rest.split()]
    return groups[:MOST_WORDS]


def found(session: Session, texts: Sequence[str], query: str) -> set[int]:
    """Which texts have to do with a query: by all its words, or where none has all, by most."""
    groups = wordings(query)
    parts, given = [], {}
    for k, group in enumerate(groups):
        either = []
        for n, word in enumerate(group):
            given[f"w{k}_{n}"] = word
            either.append(f"plainto_tsquery('english', :w{k}_{n})")
        parts.append(f"({' || '.join(either)})")
    if not parts:
        return set()
    count = " + ".join(f"(here @@ {part} and numnode({part}) > 0)::int" for part in parts)
    asked = " + ".join(f"(numnode({part}) > 0)::int" for part in parts)
    statement = text(
        f"select k - 1, {count}, {asked} from (select k, to_tsvector('english', one) as here "
        "from unnest(:texts) with ordinality as given(one, k)) as all_texts"
    ).bindparams(bindparam("texts", type_=ARRAY(Text)))
    rows = session.execute(statement, {"texts": [*texts], **given}).all()
    most = max((met for _, met, _ in rows), default=0)
    # Where no text has all words, those that have most of them do if that is half of them.
    return {int(k) for k, met, wanted in rows if met == most > 0 and 2 * met >= wanted}
