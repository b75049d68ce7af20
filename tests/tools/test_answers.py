"""The answers that the tests of the screens render are answers of this API: recorded anew when it changes."""

import json
import re
from typing import Any

import pytest
from jsonschema import Draft202012Validator

from kumpan.tools.answers import FILE
from kumpan.web.main import build_app

ANSWERS: dict[str, Any] = json.loads(FILE.read_text())["answers"]
OPENAPI = build_app(None).openapi()


def schema_of(key: str) -> dict[str, Any]:
    """The schema of the answer at a recorded path; the key names its method where that is not GET."""
    method, _, path = key.rpartition(" ")
    path = "/api/v1" + path.partition("#")[0].partition("?")[0]
    method = (method or "get").lower()
    template = max(
        (
            known
            for known, methods in OPENAPI["paths"].items()
            if method in methods and re.fullmatch(re.sub(r"\{\w+\}", "[^/]+", known), path)
        ),
        key=lambda known: -known.count("{"),
    )
    replies = OPENAPI["paths"][template][method]["responses"]
    found: dict[str, Any] = next(
        replies[code]["content"]["application/json"]["schema"] for code in ("200", "201") if code in replies
    )
    return found


@pytest.mark.parametrize("key", sorted(ANSWERS))
def test_an_answer_is_what_its_route_would_send(key: str) -> None:
    """Field by field; one that is new or renamed asks for `./run answers`."""
    schema = {**schema_of(key), "components": OPENAPI["components"]}
    wrong = [
        f"{'/'.join(map(str, error.absolute_path))}: {error.message[:200]}"
        for error in Draft202012Validator(schema).iter_errors(ANSWERS[key])
    ]
    assert wrong == []
