"""Terms of a germ put together."""

from __future__ import annotations

from typing import TYPE_CHECKING

from axispath.core.search.series import (
    Series,
    delayed,
)

if TYPE_CHECKING:
    from axispath.core.search.corner import Corner

Terms = dict[tuple[int, int], Series]  # by (r, j)


def merged(parts: list[tuple[tuple[int, int], Series]], corner: Corner) -> Terms:
    """Terms of the same power of ln u added, and each divided by u as often as possible."""
    by_log: dict[int, list[tuple[int, Series]]] = {}
    for (r, j), series in parts:
        by_log.setdefault(j, []).append((r, series))
    terms: Terms = {}
    for j, found in by_log.items():
        least = min(r for r, _ in found)
        total: Series | None = None
        for r, series in found:
            raised = _raised(series, r - least, corner)
            total = raised if total is None else total.join(raised, lambda a, b: a + b)
        assert total is not None
        if total.vanishes:
            continue
        r = least
        while total.starts_with_zero and total.at.prec > 2:
            total, r = total.shifted(), r + 1
        terms[r, j] = total
    return terms


def _raised(series: Series, r: int, corner: Corner) -> Series:
    if r == 0:
        return series
    return Series(delayed(series.at, r), series.over * corner.power(r))
