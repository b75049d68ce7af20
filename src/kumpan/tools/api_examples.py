"""`./run examples`: an example for each route, recorded while the tests of the API run, cut short.

What stands there already and still fits its schema stays, so that the file changes only with the API.
"""

import json
import os
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from jsonschema import Draft202012Validator

from kumpan.tools.console import stage
from kumpan.tools.packages import ROOT
from kumpan.web.examples import EXAMPLES, examples
from kumpan.web.main import build_app

MOST_ITEMS, MOST_WORDS = 2, 300  # a pair stays a pair


def shortened(value: Any) -> Any:
    """Two items of each list, and no long text."""
    if isinstance(value, list):
        return [shortened(one) for one in value[:MOST_ITEMS]]
    if isinstance(value, dict):
        return {name: shortened(one) for name, one in value.items()}
    return value[:MOST_WORDS] if isinstance(value, str) else value


def operations(
    document: dict[str, Any],
) -> Iterator[tuple[str, dict[str, Any] | None, dict[str, Any] | None]]:
    """Each route with the schema of its body and of its answer, where they are JSON."""
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            body = operation.get("requestBody", {}).get("content", {}).get("application/json", {})
            answers = (
                reply.get("content", {}).get("application/json", {}).get("schema")
                for status, reply in operation["responses"].items()
                if status.startswith("2")
            )
            yield f"{method.upper()} {path}", body.get("schema"), next(answers, None)


def fits(document: dict[str, Any], schema: dict[str, Any] | None, value: Any) -> bool:
    """Whether a value is what the schema says. `document` holds what it refers to."""
    whole = {**(schema or {}), "components": document["components"]}
    return Draft202012Validator(whole).is_valid(value)


def missing(document: dict[str, Any], known: dict[str, dict[str, Any]]) -> list[str]:
    """Routes whose body or answer has no example, or one that no longer fits."""
    return [
        f"{route}: {part}"
        for route, body, answer in operations(document)
        for part, schema in (("body", body), ("answer", answer))
        if schema and (part not in known.get(route, {}) or not fits(document, schema, known[route][part]))
    ]


SIMPLE = {"boolean": True}


def _plain(schema: dict[str, Any]) -> Any:
    """What a schema of one word means: an answer that only says that it was done."""
    return SIMPLE.get(schema.get("type", ""))


def gathered(
    document: dict[str, Any], known: dict[str, dict[str, Any]], heard: Iterator[dict[str, Any]]
) -> dict[str, dict[str, Any]]:
    """What is known and still fits, and for the rest what was heard first that fits."""
    schemas = {route: {"body": body, "answer": answer} for route, body, answer in operations(document)}
    found = {
        route: {
            part: value
            for part, value in example.items()
            if schemas[route].get(part) and fits(document, schemas[route][part], value)
        }
        for route, example in known.items()
        if route in schemas
    }
    for one in heard:
        parts = schemas.get(one["route"], {})
        for part, schema in parts.items():
            here = found.setdefault(one["route"], {})
            # What has lists of a fixed length is told whole.
            values = (shortened(one.get(part)), one.get(part)) if part == "answer" else (one.get(part),)
            found_fit = [value for value in values if schema and fits(document, schema, value)]
            if part not in here and part in one and found_fit:
                here[part] = found_fit[0]
    for route, parts in schemas.items():
        answer = parts["answer"]
        if answer and _plain(answer) is not None:
            found.setdefault(route, {}).setdefault("answer", _plain(answer))
    return {route: found[route] for route in sorted(found) if found[route]}


def _heard(folder: Path) -> Iterator[dict[str, Any]]:
    for file in sorted(folder.glob("*.jsonl")):
        for line in file.read_text().splitlines():
            yield json.loads(line)


def main(_: list[str]) -> int:
    """Run the tests, gather, write; says what is still missing."""
    document = build_app(None).openapi()
    with tempfile.TemporaryDirectory(prefix="kumpan examples ") as folder:
        with stage("Tests of the API, recorded"):
            around = {**os.environ, "KUMPAN_RECORD": folder}
            leave = "--ignore=tests/web/test_main_schema.py"  # reads the examples
            command = [sys.executable, "-m", "pytest", "-q", "-n", "2", leave, "tests/web", "tests/devices"]
            subprocess.run(command, cwd=ROOT, env=around, check=False)
        found = gathered(document, examples(), _heard(Path(folder)))
    EXAMPLES.write_text(json.dumps(found, indent=1, ensure_ascii=False, sort_keys=True) + "\n")
    left = missing(document, found)
    print(f"{len(found)} routes with examples, {len(left)} parts without:", *left, sep="\n  ")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
