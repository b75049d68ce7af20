"""What is built comes packed, for ever, and as it was built."""

import gzip
from pathlib import Path

import httpx
import pytest
from fastapi import FastAPI

from kumpan.web.front_end import install

PAGE = '<!doctype html><script type="module" src="/assets/draws-1.js"></script>'
SCRIPT = b"const pool = 1;\n" * 200


@pytest.fixture
def pages(tmp_path: Path) -> httpx.AsyncClient:
    (tmp_path / "assets").mkdir()
    (tmp_path / "assets" / "index-1.js").write_bytes(SCRIPT)
    (tmp_path / "assets" / "index-1.js.gz").write_bytes(gzip.compress(SCRIPT))
    (tmp_path / "assets" / "drop.svg").write_text("<svg/>")
    (tmp_path / "index.html").write_text(PAGE)
    (tmp_path / "icon.svg").write_text("<svg/>")
    (tmp_path.parent / "secret").write_text("not for everybody")
    app = FastAPI()
    install(app, tmp_path)
    return httpx.AsyncClient(transport=httpx.ASGITransport(app), base_url="http://kumpan")


async def test_a_script_comes_packed_to_who_unpacks_it(pages: httpx.AsyncClient) -> None:
    reply = await pages.get("/assets/index-1.js", headers={"accept-encoding": "gzip"})
    assert reply.content == SCRIPT
    assert reply.headers["content-encoding"] == "gzip"
    assert reply.headers["vary"] == "Accept-Encoding"
    assert reply.headers["content-type"].startswith("text/javascript")
    assert int(reply.headers["content-length"]) < len(SCRIPT) / 2


async def test_it_comes_plain_to_everybody_else(pages: httpx.AsyncClient) -> None:
    reply = await pages.get("/assets/index-1.js", headers={"accept-encoding": "identity"})
    assert reply.content == SCRIPT
    assert "content-encoding" not in reply.headers


@pytest.mark.parametrize("path", ["/assets/index-1.js", "/assets/drop.svg"])
async def test_it_is_asked_for_once(pages: httpx.AsyncClient, path: str) -> None:
    assert "immutable" in (await pages.get(path)).headers["cache-control"]


async def test_it_is_read_once_and_sent_from_then_on(pages: httpx.AsyncClient, tmp_path: Path) -> None:
    assert (await pages.get("/assets/drop.svg")).text == "<svg/>"
    (tmp_path / "assets" / "drop.svg").unlink()
    assert (await pages.get("/assets/drop.svg")).text == "<svg/>"
    assert (await pages.head("/assets/drop.svg")).headers["content-length"] == "6"


async def test_what_is_not_there_is_not_kept_and_comes_once_it_is_built(
    pages: httpx.AsyncClient, tmp_path: Path
) -> None:
    reply = await pages.get("/assets/index-0.js")
    assert (reply.status_code, "cache-control" in reply.headers) == (404, False)
    (tmp_path / "assets" / "index-0.js").write_bytes(SCRIPT)
    assert (await pages.get("/assets/index-0.js")).content == SCRIPT


@pytest.mark.parametrize("path", ["/", "/pools/new", "/pools/unknown/log"])
async def test_every_address_of_the_app_is_its_one_page(pages: httpx.AsyncClient, path: str) -> None:
    reply = await pages.get(path)
    assert reply.text == PAGE
    assert reply.headers["cache-control"] == "no-cache"


async def test_files_beside_the_page_are_served_and_none_above_it(pages: httpx.AsyncClient) -> None:
    assert (await pages.get("/icon.svg")).text == "<svg/>"
    assert "not for" not in (await pages.get("/%2e%2e/secret")).text
    assert "not for" not in (await pages.get("/assets/%2e%2e/%2e%2e/secret")).text
    assert (await pages.get("/api/nothing")).status_code == 404


@pytest.mark.parametrize("name", ["a%00b", "a" * 300], ids=["null byte", "too long"])
async def test_what_can_be_no_name_is_no_fault_of_the_server(pages: httpx.AsyncClient, name: str) -> None:
    assert (await pages.get(f"/assets/{name}")).status_code == 404
    assert (await pages.get(f"/{name}")).text == PAGE
