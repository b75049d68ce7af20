"""A database of the version before, as it was dumped in July 2026: read as it is.

Invented data, the demo season.
"""

import gzip
import subprocess
from datetime import UTC, datetime
from pathlib import Path
from uuid import UUID

import pytest_asyncio

from kumpan.core.journal import NotUnderstood
from kumpan.services.assessment.queries import head
from kumpan.services.journal.ledger import Scope, pool_entries
from kumpan.services.people.queries import the_workspace
from kumpan.storage.transaction import Database
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.serving import prepare

DUMP = Path(__file__).parent / "season_of_july_2026.sql.gz"
NOW = datetime(2026, 7, 15, 19, 30, tzinfo=UTC)
OLD = "kumpan_old"


@pytest_asyncio.fixture
async def old(mariadb: MariaDbServer, tmp_path: Path) -> Database:
    """The dump, loaded and migrated to this version."""
    mariadb.run_sql(f"DROP DATABASE IF EXISTS {OLD}; CREATE DATABASE {OLD}")
    load = ["mariadb", "--no-defaults", f"--socket={mariadb.socket}", "-uroot", OLD]
    subprocess.run(load, input=gzip.decompress(DUMP.read_bytes()), check=True)
    prepare(mariadb.url(OLD), backups=tmp_path)
    return Database(mariadb.url(OLD))


async def test_every_row_is_understood_and_every_pool_answers(old: Database) -> None:
    async with old.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), NOW)
        ids: list[UUID] = [pool.id for pool in await tx.journal.pools(scope.workspace_id)]
        entries = [entry for id_ in ids for entry in await pool_entries(scope, id_)]
        heads = [await head(scope, id_) for id_ in ids]
    await old.close()
    assert len(ids) == 5
    assert len(entries) > 1000
    assert [entry.body for entry in entries if isinstance(entry.body, NotUnderstood)] == []
    assert all(top.next.text for top in heads)
