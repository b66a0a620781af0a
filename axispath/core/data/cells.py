"""The numbers of a column: an immutable array that is known by its content.

In a document's text the numbers stand as a list; whoever stores documents may take long ones out
and put their digest in, so that a column of 100,000 numbers is kept once and not in every
revision. That goes by the context of pydantic: ``contents`` is a dict from digests to cells.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Iterable
from typing import Any

import numpy as np
from numpy.typing import NDArray
from pydantic import GetCoreSchemaHandler, SerializationInfo, ValidationInfo
from pydantic_core import core_schema

Floats = NDArray[np.float64]
MAX_ROWS = 100_000
LONG = 400  # numbers, from which on they are kept by their content
LARGEST = 1e300
CONTENT = "content"


class Cells:
    """Numbers in rows, shape (n,); NaN where there is none."""

    __slots__ = ("digest", "values")

    def __init__(self, values: Iterable[float | None]) -> None:
        if isinstance(values, np.ndarray):
            array = np.array(values, dtype=np.float64)
        else:
            given = [math.nan if value is None else value for value in values]
            array = np.array(given, dtype=np.float64)
        array[~np.isfinite(array)] = np.nan
        array += 0.0  # no −0
        array.setflags(write=False)
        self.values: Floats = array
        self.digest = hashlib.sha256(array.tobytes()).hexdigest()

    def __len__(self) -> int:
        return len(self.values)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Cells) and other.digest == self.digest

    def __hash__(self) -> int:
        return hash(self.digest)

    def __repr__(self) -> str:
        return f"Cells of {len(self)} rows"

    def __reduce__(self) -> tuple[Any, ...]:
        return Cells, (np.array(self.values),)

    def listed(self) -> list[float | None]:
        """The numbers, None where there is none."""
        return [None if math.isnan(value) else value for value in self.values.tolist()]

    @classmethod
    def __get_pydantic_core_schema__(
        cls, source: Any, handler: GetCoreSchemaHandler
    ) -> core_schema.CoreSchema:
        return core_schema.with_info_plain_validator_function(
            _validated,
            serialization=core_schema.plain_serializer_function_ser_schema(
                _serialised, info_arg=True
            ),
        )

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: Any, handler: Any) -> dict[str, Any]:
        number = {"anyOf": [{"type": "number"}, {"type": "null"}]}
        return {"type": "array", "items": number, "maxItems": MAX_ROWS}


def _validated(value: Any, info: ValidationInfo) -> Cells:
    if isinstance(value, Cells):
        return value
    if isinstance(value, dict) and set(value) == {CONTENT}:
        known = (info.context or {}).get("contents", {}).get(value[CONTENT])
        if known is None:
            raise ValueError("the numbers of a column are missing")
        return known  # type: ignore[no-any-return]
    if not isinstance(value, list | tuple):
        raise ValueError("a column is a list of numbers")
    if len(value) > MAX_ROWS:
        raise ValueError(f"a column can have {MAX_ROWS} rows")
    for one in value:
        if one is None:
            continue
        if isinstance(one, bool) or not isinstance(one, int | float) or not abs(one) <= LARGEST:
            raise ValueError("a column holds ordinary numbers, and null where one is missing")
    return Cells(value)


def _serialised(cells: Cells, info: SerializationInfo) -> Any:
    context = info.context or {}
    if "contents" in context and len(cells) > LONG:
        context["contents"][cells.digest] = cells
        return {CONTENT: cells.digest}
    return cells.listed()


EMPTY = Cells(())
