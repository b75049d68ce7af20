"""The OpenAPI document, the client's types and the emergency page are those of this code, not of an older one."""

import subprocess
from pathlib import Path

from kumpan.tools import generate


def test_the_openapi_document_is_current() -> None:
    assert generate.OPENAPI.read_text() == generate.openapi_text(), "run ./run generate"


def test_the_emergency_page_is_current() -> None:
    assert generate.EMERGENCY.read_text() == generate.emergency_text(), "run ./run generate"


def test_the_clients_types_are_current(tmp_path: Path) -> None:
    fresh = tmp_path / "schema.ts"
    try:
        generate.client_types(fresh)
    except subprocess.CalledProcessError as failed:
        raise AssertionError(failed.stderr) from failed
    assert generate.SCHEMA.read_text() == fresh.read_text(), "run ./run generate"


def test_the_hazardous_classes_are_current() -> None:
    assert generate.HAZARDOUS.read_text() == generate.hazardous_text(), "run ./run generate"
