"""`./run users`: the last way in, from the terminal of who runs the server."""

import asyncio

import pytest

from kumpan.services.journal.ledger import Scope
from kumpan.services.people.accounts import invite, use_link
from kumpan.services.people.queries import the_workspace
from kumpan.storage.transaction import Database
from kumpan.tools.users import main
from tests.web.conftest import OFFICE_ID, START, office_token


@pytest.fixture
def database(database_url: str, monkeypatch: pytest.MonkeyPatch) -> str:
    monkeypatch.setenv("KUMPAN_DATABASE_URL", database_url)
    return database_url


def said(capsys: pytest.CaptureFixture[str], *words: str) -> list[str]:
    assert main(list(words)) == 0
    return capsys.readouterr().out.splitlines()


async def an_office(url: str) -> None:
    database = Database(url)
    await office_token(database)
    async with database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), START)
        await use_link(scope, await invite(scope, OFFICE_ID), "Office", "three words of mine")
    await database.close()


def test_a_second_workspace_begins_with_its_office(database: str, capsys: pytest.CaptureFixture[str]) -> None:
    asyncio.run(an_office(database))
    [path] = said(capsys, "workspace", "Second firm", "Rolf Berg")
    assert path.startswith("/join/")
    lines = said(capsys, "list")
    assert lines == ["The Office: office, office", "Rolf Berg: office, cannot sign in yet"]


def test_who_lost_every_other_way_gets_a_link(database: str, capsys: pytest.CaptureFixture[str]) -> None:
    asyncio.run(an_office(database))
    [path] = said(capsys, "reset", " OFFICE ")
    assert path.startswith("/join/")
    assert said(capsys, "reset", "nobody") == ["Nobody signs in by this name."]
    assert "reset LOGIN" in said(capsys)[0]
