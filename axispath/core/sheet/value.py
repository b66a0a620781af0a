"""What documents are made of."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class Value(BaseModel):
    """Base of everything in a document: immutable, and strict about what it holds."""

    model_config = ConfigDict(frozen=True, extra="forbid")
