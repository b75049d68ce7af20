"""Bring a database up to date (Alembic) and, with --demo, load the demo data.

In one process: it starts fast.
"""

import asyncio
import sys

from alembic import command
from alembic.config import Config

from kumpan.demo.__main__ import main as load_demo
from kumpan.tools.packages import ROOT


def migrate() -> None:
    """Run all migrations on KUMPAN_DATABASE_URL."""
    command.upgrade(Config(str(ROOT / "alembic.ini")), "head")


if __name__ == "__main__":
    migrate()
    if "--demo" in sys.argv:
        asyncio.run(load_demo())
