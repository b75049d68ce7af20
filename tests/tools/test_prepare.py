"""Migrations survive being killed at any statement, start only after a backup, and leave newer data alone."""

import os
import subprocess
from pathlib import Path
from unittest import mock

import pytest
from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import event
from sqlalchemy.engine import Engine

from kumpan.storage.schema import HEAD
from kumpan.tools import prepare
from kumpan.tools.backup import check
from kumpan.tools.console import Stop
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.serving import prepare as prepared

NAME = "half"


class Killed(Exception):
    """The process ended here."""


def emptied(mariadb: MariaDbServer) -> str:
    mariadb.run_sql(f"DROP DATABASE IF EXISTS {NAME}; CREATE DATABASE {NAME}")
    return mariadb.url(NAME)


def upgraded(url: str, to: str, *, killed_at: int | None = None) -> int:
    """Migrate a database to a version; before one statement the process ends. How many there were."""
    seen = 0

    def before(_: object, __: object, statement: str, *___: object) -> None:
        nonlocal seen
        if statement.lstrip().upper().startswith(("SELECT", "SHOW", "DESCRIBE")):
            return
        seen += 1
        if seen == killed_at:
            raise Killed

    event.listen(Engine, "before_cursor_execute", before)
    try:
        with mock.patch.dict(os.environ, KUMPAN_DATABASE_URL=url):
            command.upgrade(Config(prepare.INI), to)
    finally:
        event.remove(Engine, "before_cursor_execute", before)
    return seen


def dumped(mariadb: MariaDbServer, *options: str) -> str:
    dump = ["mariadb-dump", "--no-defaults", f"--socket={mariadb.socket}", "-uroot", "--skip-comments"]
    return subprocess.run([*dump, *options, NAME], check=True, capture_output=True, text=True).stdout


def restored(mariadb: MariaDbServer, dump: str) -> None:
    emptied(mariadb)
    client = ["mariadb", "--no-defaults", f"--socket={mariadb.socket}", "-uroot", NAME]
    subprocess.run(client, input=dump, check=True, text=True)


def test_a_migration_killed_at_any_statement_goes_on_where_it_was(mariadb: MariaDbServer) -> None:
    """Each statement of each migration in turn is the one that is no longer reached; the next start makes the
    same database of it, from which the next migration begins.
    """
    url, statements = emptied(mariadb), 0
    steps = reversed(list(ScriptDirectory.from_config(Config(prepare.INI)).walk_revisions()))
    for step in [one.revision for one in steps]:
        before = dumped(mariadb)
        count = upgraded(url, step)
        whole = dumped(mariadb, "--no-data")
        for at in range(1, count + 1):
            restored(mariadb, before)
            with pytest.raises(Killed):
                upgraded(url, step, killed_at=at)
            upgraded(url, step)
            assert dumped(mariadb, "--no-data") == whole, (step, at)
            assert mariadb.count(NAME, "workspace") == 1, (step, at)
        statements += count
    assert statements > 40
    assert step == HEAD


def test_data_is_changed_only_after_a_backup_of_it(mariadb: MariaDbServer, tmp_path: Path) -> None:
    url = emptied(mariadb)
    prepared(url)
    mariadb.run_sql(
        f"UPDATE {NAME}.alembic_version SET version_num = '0005'; DROP TABLE {NAME}.pool_summary, {NAME}.lease, "
        f"{NAME}.poured, {NAME}.poured_total"
    )
    with pytest.raises(Stop, match="say --backups FOLDER"):
        prepared(url)
    prepared(url, backups=tmp_path)
    made = list(tmp_path.glob(f"before-{HEAD}-*.sql.gz"))
    assert len(made) == 1
    assert check(made[0]) == 0
    prepared(url, backups=tmp_path)
    assert list(tmp_path.glob("*.gz")) == made  # nothing to change, nothing to keep


def test_a_backup_that_cannot_be_made_leaves_the_data_as_it_is(
    mariadb: MariaDbServer, tmp_path: Path
) -> None:
    url = emptied(mariadb)
    prepared(url)
    mariadb.run_sql(
        f"UPDATE {NAME}.alembic_version SET version_num = '0005'; DROP TABLE {NAME}.pool_summary, {NAME}.lease, "
        f"{NAME}.poured, {NAME}.poured_total"
    )
    blocked = tmp_path / "backups"
    blocked.write_text("a file where the folder should be")
    with pytest.raises(Stop):
        prepared(url, backups=blocked)
    with pytest.raises(subprocess.CalledProcessError):
        mariadb.count(NAME, "pool_summary")


def test_older_code_on_newer_data_stops_with_one_sentence(mariadb: MariaDbServer, tmp_path: Path) -> None:
    url = emptied(mariadb)
    prepared(url)
    mariadb.run_sql(f"UPDATE {NAME}.alembic_version SET version_num = '9999'")
    with pytest.raises(Stop, match="Start the newer program, or restore a backup") as stopped:
        prepared(url, backups=tmp_path)
    assert "Traceback" not in str(stopped.value)
