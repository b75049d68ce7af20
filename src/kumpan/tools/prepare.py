"""Bring a database up to date (Alembic) and, with --demo FILE, load the demo data and its token.

In one process: it starts fast. With --backups FOLDER a database that is to be changed is dumped first, else
it is not changed. A database of a newer program is left alone.
"""

import argparse
import asyncio
import sys
from collections.abc import Awaitable, Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import TypeVar

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory

from kumpan.core.errors import Unavailable
from kumpan.demo.__main__ import main as load_demo
from kumpan.settings import Settings
from kumpan.storage.schema import HEAD
from kumpan.storage.transaction import Database
from kumpan.tools.backup import dump
from kumpan.tools.console import Stop
from kumpan.tools.packages import ROOT
from kumpan.tools.serving import NOBODY

R = TypeVar("R")
INI = str(ROOT / "alembic.ini")


def migrate(revision: str, backups: Path | None) -> None:
    """Run all migrations on KUMPAN_DATABASE_URL from a revision, after a backup; empty for a new database.

    Raises Stop for a database of a newer program.
    """
    known = [script.revision for script in ScriptDirectory(str(ROOT / "migrations")).walk_revisions()]
    if revision and revision not in known:
        raise Stop(
            f"This database is at version {revision}, and this program knows none later than {HEAD}. Start "
            "the newer program, or restore a backup of before."
        )
    if revision == HEAD:
        return
    if revision:
        if backups is None:
            raise Stop(
                f"This database is at version {revision} and must become {HEAD}; say --backups FOLDER."
            )
        name = f"before-{HEAD}-{datetime.now(UTC):%Y%m%d-%H%M%S}.sql.gz"
        dump(Settings().database_url, backups / name)
    command.upgrade(Config(INI), "head")


async def revision_of(database: Database) -> str:
    """The version of a database; empty for one without any."""
    async with database.transaction() as tx:
        return await tx.revision()


async def anybody(database: Database) -> bool:
    """Whether somebody can sign in yet."""
    async with database.transaction() as tx:
        return await tx.accounts.any_account()


async def _asked(work: Callable[[Database], Awaitable[R]]) -> R:
    database = Database(Settings().database_url)
    try:
        return await work(database)
    finally:
        await database.close()


def main(arguments: list[str]) -> int:
    """Prepare, and say whether nobody can sign in yet."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--demo", type=Path, help="load the demo data, its token into this file")
    parser.add_argument("--backups", type=Path, help="where a backup goes before the database is changed")
    given = parser.parse_args(arguments)

    try:
        migrate(asyncio.run(_asked(revision_of)), given.backups)
    except (Stop, Unavailable) as reason:
        print(reason, file=sys.stderr)
        return 1
    if given.demo:
        asyncio.run(load_demo(given.demo))
    elif not asyncio.run(_asked(anybody)):
        print(NOBODY)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
