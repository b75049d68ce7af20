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
    "imported_file",
    "photo",
    "push_call",
    "push_device",
    "push_key",
    "swim_watch",
    "hook_call",
    "hook",
    "mail",
    "mail_choice",
    "device_reading",
    "entry",
    "product",
    "secret_link",
    "pool_given",
    "pool_share",
    "pool_summary",
    "poured",
    "poured_total",
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


def wipe(mariadb: MariaDbServer) -> None:
    """Nothing is left but the workspace, as the migration made it."""
    # To truncate a table makes its file anew, a hundred times as long as to delete no row of it.
    emptied = "".join(f"DELETE FROM {DATABASE}.{table};" for table in TABLES)
    first = f"SELECT MIN(created_at) FROM {DATABASE}.workspace"
    emptied += f"DELETE FROM {DATABASE}.workspace WHERE created_at > (SELECT * FROM ({first}) AS oldest);"
    emptied += f"UPDATE {DATABASE}.workspace SET name = 'My pools';"
    mariadb.run_sql(f"SET FOREIGN_KEY_CHECKS=0;{emptied}")


@pytest.fixture
def database_url(mariadb: MariaDbServer) -> str:
    """The URL of an emptied database."""
    wipe(mariadb)
    return mariadb.url(DATABASE)
