"""The OpenAPI document against the running program: what it promises is what comes, and never a 5xx.

Requests are made from the document by schemathesis, right and wrong ones, seeded; the pool is one of the demo's.
"""

import tempfile
from collections.abc import Iterator
from importlib.util import module_from_spec, spec_from_file_location
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

from kumpan.services.outgoing.hooks import signature
from kumpan.tools.api_examples import missing
from kumpan.tools.client import make_client
from kumpan.tools.packages import ROOT
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running
from kumpan.web.examples import examples
from kumpan.web.main import build_app

schema = schemathesis.openapi.from_dict(build_app(None).openapi())
CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
EXAMPLES = 4  # of each route: a hundred and more of them


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


def example(name: str = "one_evening") -> Any:
    spec = spec_from_file_location(name, ROOT / f"docs/examples/{name}.py")
    assert spec is not None
    assert spec.loader is not None
    module = module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def test_a_client_is_generated_and_the_notebook_of_the_docs_runs_with_it(
    demo: Running, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    make_client(tmp_path)
    monkeypatch.syspath_prepend(tmp_path)
    notebook = example("a_season_in_numbers")
    client = notebook.AuthenticatedClient(
        demo.address, token=demo.token_file.read_text().strip(), timeout=120
    )
    with client as kumpan:
        said = notebook.season_in_numbers(kumpan)
    # A call of the document above may have put the one pool it is given away: what is listed is the measure.
    listed = httpx.get(f"{demo.address}/api/v1/pools", headers=demo.as_office, timeout=120).json()["pools"]
    assert sorted(line.split(":")[0] for line in said) == sorted(pool["settings"]["name"] for pool in listed)
    assert len(said) >= 4
    assert any(" pH 7." in line and "+-" in line for line in said)
    assert all("next: " in line for line in said)


def test_each_route_has_an_example_that_is_what_its_schema_says() -> None:
    assert missing(build_app(None).openapi(), examples()) == []


def test_the_document_that_is_served_has_the_examples(demo: Running) -> None:
    served = httpx.get(f"{demo.address}/api/openapi.json", timeout=60).json()
    body = served["paths"]["/api/v1/pools"]["post"]["requestBody"]["content"]["application/json"]
    assert body["example"]["settings"]["name"]


def test_the_example_of_the_docs_runs_as_it_says(demo: Running) -> None:
    with httpx.Client(base_url=demo.address, headers=demo.as_office, timeout=120) as client:
        said = example().one_evening(client)
    assert said[1].startswith("Swim: ")
    assert int(said[-1].split()[0]) > 5


def test_the_example_knows_a_call_that_is_ours() -> None:
    body = b'{"event": "entry"}'
    signed = signature("a secret", 1_780_000_000, body.decode())
    assert example().is_from_kumpan("a secret", body, signed)
    assert not example().is_from_kumpan("a secret", body + b" ", signed)
    assert not example().is_from_kumpan("another", body, signed)
