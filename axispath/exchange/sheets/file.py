"""A sheet as a JSON file, and back."""

from __future__ import annotations

from typing import Any

import orjson
from pydantic import ValidationError

from axispath.core.sheet.document import Document
from axispath.core.sheet.names import strange_sign
from axispath.core.sheet.refused import EditRefused

NEWEST = 1
MARK = "axis path sheet"  # the first field of every file, with the version of its schema
LARGEST = 20 << 20  # bytes


def sheet_file(document: Document) -> bytes:
    """A sheet as JSON, with the version of its schema first."""
    found = {MARK: NEWEST, **document.model_dump(mode="json", exclude_defaults=True)}
    found["name"] = document.name
    found.pop("format", None)
    return orjson.dumps(found, option=orjson.OPT_INDENT_2) + b"\n"


def read_sheet(data: bytes) -> Document:
    """The sheet in a file. Raises EditRefused with a sentence for anything else."""
    if len(data) > LARGEST:
        size = f"{len(data) / (1 << 20):.0f} MB"
        raise EditRefused(f"This file has {size}; a sheet has {LARGEST >> 20} MB at most.")
    try:
        found = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise EditRefused(
            "This is no sheet that was taken away whole: it cannot be read as JSON from line "
            f"{error.lineno}, sign {error.colno} on."
        ) from error
    if not isinstance(found, dict) or MARK not in found:
        raise EditRefused(f"This JSON is not of a sheet: one of those begins with “{MARK}”.")
    sign = strange_sign(found)
    if sign:
        raise EditRefused(f"There is a sign in this file that cannot be shown ({sign}).")
    version = found.pop(MARK)
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise EditRefused(
            f"The version of this sheet is not a whole number from 1 on: {version!r}."
        )
    if version > NEWEST:
        raise EditRefused(
            f"This sheet was written by a newer version (schema {version}); up to {NEWEST} can be "
            "read here."
        )
    for step in range(version, NEWEST):
        found = UPGRADES[step](found)
    try:
        return Document.model_validate(found)
    except ValidationError as error:
        raise EditRefused(_told(error)) from error


UPGRADES: dict[int, Any] = {}
"""What brings a file of a version up to the next."""


def _told(error: ValidationError) -> str:
    """The first thing that does not fit, and where it stands."""
    first = error.errors()[0]
    place = ".".join(str(one + 1) if isinstance(one, int) else str(one) for one in first["loc"])
    message = first["msg"].removeprefix("Value error, ").rstrip(".")
    more = f" (and {error.error_count() - 1} more)" if error.error_count() > 1 else ""
    return f"This sheet cannot be read: {place or 'the whole of it'}: {message}{more}."


def schema() -> dict[str, Any]:
    """The JSON Schema of a sheet's file (draft 2020-12)."""
    found = Document.model_json_schema(mode="validation")
    properties = dict(found.get("properties", {}))
    properties.pop("format", None)
    mark = {"const": NEWEST, "description": "The version of this schema."}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "A sheet of Axis Path",
        "description": "Fields that are left out have their defaults.",
        **{k: v for k, v in found.items() if k not in ("title", "description", "properties")},
        "properties": {MARK: mark, **properties},
        "required": [MARK],
    }
