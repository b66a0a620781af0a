"""Writes the types of requests, edits and documents for the scripts, from the pydantic models.

.venv/bin/python -m tools.schema_types          writes them
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

from pydantic import BaseModel, TypeAdapter
from pydantic.json_schema import models_json_schema

from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import EDITS
from axispath.web import asked

PLACE = Path(__file__).resolve().parents[1] / "axispath/web/static/js/sheet/schema.d.ts"
HEAD = """/**
 * What goes over the wire as JSON: documents, edits and requests.
 * Written by tools/schema_types.py from the models that check them; not to be edited.
 */
"""


def written() -> str:
    """The file as it has to be."""
    requests = [
        (model, "validation")
        for model in vars(asked).values()
        if isinstance(model, type)
        and issubclass(model, BaseModel)
        and model.__module__ == asked.__name__
    ]
    models: Any = requests
    _, schema = models_json_schema(models, ref_template="{model}")
    found: dict[str, Any] = dict(schema.get("$defs", {}))
    stored = Document.model_json_schema(ref_template="{model}", mode="serialization")
    whole = {**stored.pop("$defs"), "Document": stored}  # a document comes with all it has
    edits = TypeAdapter.json_schema(EDITS, ref_template="{model}", mode="validation")
    for name, definition in edits.pop("$defs").items():
        found.setdefault(name, definition)
    parts = [
        _declared(name, whole.get(name, definition), name in whole)
        for name, definition in sorted({**found, **whole}.items())
    ]
    parts.append(f"export type Edit = {_type(edits['items'])};")
    return HEAD + "\n" + "\n\n".join(parts) + "\n"


def _declared(name: str, schema: dict[str, Any], whole: bool) -> str:
    if "properties" not in schema:
        return f"export type {name} = {_type(schema)};"
    required = set(schema.get("required", ()))
    lines = [f"export interface {name} {{"]
    for field, part in schema["properties"].items():
        # A literal tells kinds apart, and is always there.
        needed = whole or field in required or "const" in part
        lines.append(f"  {field}{'' if needed else '?'}: {_type(part)};")
    return "\n".join([*lines, "}"])


def _type(schema: dict[str, Any]) -> str:
    if "$ref" in schema:
        return schema["$ref"].rsplit("/")[-1]
    if "const" in schema:
        return _literal(schema["const"])
    if "enum" in schema:
        return " | ".join(_literal(value) for value in schema["enum"])
    for union in ("anyOf", "oneOf"):
        if union in schema:
            return " | ".join(dict.fromkeys(_type(part) for part in schema[union]))
    match schema.get("type"):
        case "array" if "prefixItems" in schema:
            return f"[{', '.join(_type(part) for part in schema['prefixItems'])}]"
        case "array":
            inside = _type(schema.get("items", {}))
            return f"({inside})[]" if " " in inside else f"{inside}[]"
        case "object":
            return f"Record<string, {_type(schema.get('additionalProperties') or {})}>"
        case "integer" | "number":
            return "number"
        case "string" | "boolean" | "null" as plain:
            return plain
    return "unknown"


def _literal(value: object) -> str:
    return f'"{value}"' if isinstance(value, str) else str(value).lower()


if __name__ == "__main__":
    PLACE.write_text(written())
