"""What is built comes packed, for ever, and as it was built."""

import gzip
from pathlib import Path

import httpx
import pytest
from fastapi import FastAPI
from starlette.exceptions import HTTPException

from kumpan.web.front_end import Assets, install

PAGE = '<!doctype html><script type="module" src="/assets/draws-1.js"></script>'
SCRIPT = b"const pool = 1;\n" * 200


@pytest.fixture
def assets(tmp_path: Path) -> httpx.AsyncClient:
    (tmp_path / "index-1.js").write_bytes(SCRIPT)
    (tmp_path / "index-1.js.gz").write_bytes(gzip.compress(SCRIPT))
    (tmp_path / "drop.svg").write_text("<svg/>")
    transport = httpx.ASGITransport(Assets(directory=tmp_path))
    return httpx.AsyncClient(transport=transport, base_url="http://kumpan")


async def test_a_script_comes_packed_to_who_unpacks_it(assets: httpx.AsyncClient) -> None:
    reply = await assets.get("/index-1.js", headers={"accept-encoding": "gzip"})
    assert reply.content == SCRIPT
    assert reply.headers["content-encoding"] == "gzip"
    assert reply.headers["vary"] == "Accept-Encoding"
    assert reply.headers["content-type"].startswith("text/javascript")
    assert int(reply.headers["content-length"]) < len(SCRIPT) / 2


async def test_it_comes_plain_to_everybody_else(assets: httpx.AsyncClient) -> None:
    reply = await assets.get("/index-1.js", headers={"accept-encoding": "identity"})
    assert reply.content == SCRIPT
    assert "content-encoding" not in reply.headers


@pytest.mark.parametrize("path", ["/index-1.js", "/drop.svg"])
async def test_it_is_asked_for_once(assets: httpx.AsyncClient, path: str) -> None:
    assert "immutable" in (await assets.get(path)).headers["cache-control"]


async def test_what_is_not_there_is_not_kept(assets: httpx.AsyncClient) -> None:
    with pytest.raises(HTTPException) as refused:
        await assets.get("/index-0.js")
    assert refused.value.status_code == 404
    assert refused.value.headers is None


@pytest.fixture
def pages(tmp_path: Path) -> httpx.AsyncClient:
    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text(PAGE)
    (tmp_path / "icon.svg").write_text("<svg/>")
    (tmp_path.parent / "secret").write_text("not for everybody")
    app = FastAPI()
    install(app, tmp_path)
    return httpx.AsyncClient(transport=httpx.ASGITransport(app), base_url="http://kumpan")


@pytest.mark.parametrize("path", ["/", "/pools/new", "/pools/unknown/log"])
async def test_every_address_of_the_app_is_its_one_page(pages: httpx.AsyncClient, path: str) -> None:
    reply = await pages.get(path)
    assert reply.text == PAGE
    assert reply.headers["cache-control"] == "no-cache"


async def test_files_beside_the_page_are_served_and_none_above_it(pages: httpx.AsyncClient) -> None:
    assert (await pages.get("/icon.svg")).text == "<svg/>"
    assert "not for" not in (await pages.get("/%2e%2e/secret")).text
    assert (await pages.get("/api/nothing")).status_code == 404
