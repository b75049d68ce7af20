"""The OpenAPI document against the running program: what it promises is what comes, and never a 5xx.

Requests are made from the document by schemathesis, right and wrong ones, seeded; the pool is one of the demo's.
"""

import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import httpx
import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running
from kumpan.web.main import build_app

schema = schemathesis.openapi.from_dict(build_app(None).openapi())
CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
EXAMPLES = 6  # of each route: a hundred and more of them


@pytest.fixture(scope="module")
def demo() -> Iterator[Running]:
    with tempfile.TemporaryDirectory(prefix="kumpan schema ") as folder:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=True)
            yield running
        finally:
            running.stop()


@pytest.fixture(scope="module")
def pool(demo: Running) -> str:
    reply = httpx.get(f"{demo.address}/api/v1/pools?sort=name", headers=demo.as_office, timeout=120)
    return str(reply.json()["pools"][1]["id"])


@schema.parametrize()
@settings(
    max_examples=EXAMPLES,
    derandomize=True,
    deadline=None,
    phases=(Phase.explicit, Phase.generate),
    suppress_health_check=list(HealthCheck),
)
def test_what_the_document_promises_comes(case: schemathesis.Case[Any], demo: Running, pool: str) -> None:
    if "pool_id" in case.path_parameters:
        case.path_parameters["pool_id"] = pool
    response = case.call(base_url=demo.address, headers=demo.as_office, timeout=120)
    assert response.status_code < 500
    case.validate_response(response, checks=CHECKS)
