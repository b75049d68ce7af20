"""`./run export` and `./run import`: the same files as over the screens."""

import asyncio
from pathlib import Path

import pytest

from kumpan.demo.__main__ import load
from kumpan.storage.transaction import Database
from kumpan.tools.archive_command import bring, export, main
from kumpan.tools.console import Stop
from kumpan.tools.mariadb_server import MariaDbServer
from tests.conftest import wipe
from tests.services.sharing.test_bring_in import NOW


async def demo(url: str) -> None:
    database = Database(url)
    await load(database, NOW)
    await database.close()


def test_a_workspace_goes_out_and_comes_in(
    mariadb: MariaDbServer,
    database_url: str,
    tmp_path: Path,
    capsys: pytest.CaptureFixture[str],
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    asyncio.run(demo(database_url))
    file = tmp_path / "a workspace.zip"
    monkeypatch.setenv("KUMPAN_DATABASE_URL", database_url)
    assert main(["export", str(tmp_path), str(file)]) == 0
    wipe(mariadb)
    assert main(["import", str(tmp_path), str(file)]) == 0
    assert "5 pools" in capsys.readouterr().out
    assert main(["import", str(tmp_path), str(tmp_path / "none.zip")]) == 1
    assert "no file" in capsys.readouterr().err


def test_a_file_that_is_neither_is_refused_with_its_sentence(database_url: str, tmp_path: Path) -> None:
    file = tmp_path / "x.txt"
    file.write_text("hello")
    with pytest.raises(Stop, match="no journal that Kumpan wrote"):
        asyncio.run(bring(database_url, file))


def test_an_empty_workspace_goes_out_too(database_url: str, tmp_path: Path) -> None:
    assert "MB" in asyncio.run(export(database_url, tmp_path / "empty.zip"))
