"""An example for each route of the OpenAPI document: what was really sent and answered, cut short.

Recorded by `./run examples` from the tests of the API; a test holds them against the schemas of today.
"""

import json
from functools import cache
from pathlib import Path
from typing import Any

EXAMPLES = Path(__file__).parent / "examples.json"


@cache
def examples() -> dict[str, dict[str, Any]]:
    """By "METHOD /path": "body" and "answer", as far as they are JSON."""
    found: dict[str, dict[str, Any]] = json.loads(EXAMPLES.read_text()) if EXAMPLES.exists() else {}
    return found


def with_examples(document: dict[str, Any]) -> dict[str, Any]:
    """The document, with its examples at each body and answer (changed in place)."""
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            _put(operation, examples().get(f"{method.upper()} {path}", {}))
    return document


def _put(operation: dict[str, Any], example: dict[str, Any]) -> None:
    body = operation.get("requestBody", {}).get("content", {}).get("application/json")
    if body is not None and "body" in example:
        body["example"] = example["body"]
    for status, reply in operation.get("responses", {}).items():
        answer = reply.get("content", {}).get("application/json")
        if status.startswith("2") and answer is not None and "answer" in example:
            answer["example"] = example["answer"]
