"""The JSON Schema of the open journal format, from the models that read and write it."""

import json
from typing import Any

from kumpan.formats.journal_jsonl import FORMAT, VERSION, HeaderIn, LineIn
from kumpan.storage.wire.base import VERSION as BODY_VERSION
from kumpan.storage.wire.kinds import STORED

REF = "#/$defs/{model}"


def journal_schema() -> dict[str, Any]:
    """One schema for any line: the header, or an entry whose body follows from its kind and version.

    An entry of a kind or version that is not named here is valid: programs keep what they do not know.
    """
    defs: dict[str, Any] = {"header": HeaderIn.model_json_schema(), "entry": LineIn.model_json_schema()}
    rules = []
    for name, stored in STORED.items():
        for number, model in enumerate(stored.versions, start=1):
            own = model.model_json_schema(by_alias=False, ref_template=REF)
            defs |= own.pop("$defs", {})
            if number > 1:
                own["properties"] = {BODY_VERSION: {"const": number}, **own["properties"]}
            defs[model.__name__] = own
            rules.append(_rule(name, number, model.__name__))
    defs["entry"]["allOf"] = rules
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"One line of {FORMAT}, version {VERSION}",
        "if": {"type": "object", "required": ["format"]},
        "then": {"$ref": "#/$defs/header"},
        "else": {"$ref": "#/$defs/entry"},
        "$defs": defs,
    }


def _rule(kind: str, version: int, model: str) -> dict[str, Any]:
    versioned = {"required": [BODY_VERSION], "properties": {BODY_VERSION: {"const": version}}}
    body = {"not": {"required": [BODY_VERSION]}} if version == 1 else versioned
    return {
        "if": {"properties": {"kind": {"const": kind}, "body": body}},
        "then": {"properties": {"body": {"$ref": REF.format(model=model)}}},
    }


def journal_schema_text() -> str:
    """As it stands in the docs."""
    return json.dumps(journal_schema(), indent=1, ensure_ascii=False, sort_keys=True) + "\n"
