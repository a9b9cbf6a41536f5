"""The JSON Schemas of the file formats, made from the types that read them."""

from __future__ import annotations

from typing import Any

import msgspec

from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.storage import bundles
from nakrel.storage.files import VERSION

__all__ = ["schemas"]

_DRAFT = "https://json-schema.org/draft/2020-12/schema"


def schemas() -> dict[str, dict[str, Any]]:
    """The published schemas by file name (JSON Schema, draft 2020-12)."""
    return {
        "macro.schema.json": _schema(Macro, "nakrel-macro"),
        "profile.schema.json": _schema(Profile, "nakrel-profile"),
        "bundle.schema.json": {
            "$schema": _DRAFT,
            "title": bundles.FORMAT,
            "description": "bundle.json, the first file of a bundle; profiles and macros have their own schemas.",
            "type": "object",
            "properties": {"format": {"const": bundles.FORMAT}, "version": {"const": bundles.VERSION}},
            "required": ["format", "version"],
            "additionalProperties": False,
        },
    }


def _schema(kind: type, name: str) -> dict[str, Any]:
    schema = msgspec.json.schema(kind)
    body = schema["$defs"][kind.__name__]
    body["properties"] = {"format": {"const": name}, "version": {"const": VERSION}} | body["properties"]
    body["required"] = ["format", "version", *body["required"]]
    return {"$schema": _DRAFT, "title": name} | schema
