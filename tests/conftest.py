"""One MariaDB server and one database per test worker; each test starts with an empty journal."""

import tempfile
from collections.abc import Iterator
from pathlib import Path

import pytest
from hypothesis import settings

from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.serving import DATABASE, prepare

settings.register_profile("kumpan", deadline=None, derandomize=True, max_examples=60)
settings.load_profile("kumpan")

TABLES = (
    "device_reading",
    "entry",
    "product",
    "secret_link",
    "pool_given",
    "pool_share",
    "pool_summary",
    "journal_copy",
    "passkey",
    "challenge",
    "lease",
    "pool",
    "account",
    "session",
    "api_token",
    "audit",
    "attempt",
    "person",
)


@pytest.fixture(scope="session")
def mariadb() -> Iterator[MariaDbServer]:
    """A server of this worker's own, in a folder with a space in its name."""
    with tempfile.TemporaryDirectory(prefix="kumpan test ") as folder:
        server = MariaDbServer(Path(folder))
        server.start(durable=False)
        server.run_sql(f"CREATE DATABASE {DATABASE}")
        prepare(server.url(DATABASE))
        yield server
        server.stop()


@pytest.fixture
def database_url(mariadb: MariaDbServer) -> str:
    """The URL of an emptied database; the workspace stays, as the migration made it."""
    wipe = "".join(f"TRUNCATE TABLE {DATABASE}.{table};" for table in TABLES)
    first = f"SELECT MIN(created_at) FROM {DATABASE}.workspace"
    wipe += f"DELETE FROM {DATABASE}.workspace WHERE created_at > (SELECT * FROM ({first}) AS oldest);"
    wipe += f"UPDATE {DATABASE}.workspace SET name = 'My pools';"
    mariadb.run_sql(f"SET FOREIGN_KEY_CHECKS=0;{wipe}")
    return mariadb.url(DATABASE)
