"""Bring a database up to date (Alembic) and, with --demo FILE, load the demo data and its token.

In one process: it starts fast.
"""

import asyncio
import sys
from pathlib import Path

from alembic import command
from alembic.config import Config

from kumpan.demo.__main__ import main as load_demo
from kumpan.settings import Settings
from kumpan.storage.transaction import Database
from kumpan.tools.packages import ROOT
from kumpan.tools.serving import NOBODY


def migrate() -> None:
    """Run all migrations on KUMPAN_DATABASE_URL."""
    command.upgrade(Config(str(ROOT / "alembic.ini")), "head")


async def anybody() -> bool:
    """Whether somebody can sign in yet."""
    database = Database(Settings().database_url)
    async with database.transaction() as tx:
        found = await tx.accounts.any_account()
    await database.close()
    return found


if __name__ == "__main__":
    migrate()
    if "--demo" in sys.argv:
        asyncio.run(load_demo(Path(sys.argv[sys.argv.index("--demo") + 1])))
    elif not asyncio.run(anybody()):
        print(NOBODY)
